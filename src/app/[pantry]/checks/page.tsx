import { ChecksView } from "@/ui/checks/view";

export default function Page() {
  return <ChecksView />;
}
