import { problem } from "@/server/problem";
import { route } from "@/server/route";

const none = route(() => problem(404, "No such address", "The API's addresses are in the README."), { asks: null });
export { none as DELETE, none as GET, none as PATCH, none as POST, none as PUT };
