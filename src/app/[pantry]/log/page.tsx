import { LogView } from "@/ui/log/view";

export default function Page() {
  return <LogView />;
}
