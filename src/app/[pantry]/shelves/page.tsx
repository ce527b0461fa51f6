import { ShelvesView } from "@/ui/shelves/view";

export default function Page() {
  return <ShelvesView />;
}
