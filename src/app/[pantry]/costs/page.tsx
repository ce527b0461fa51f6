import { CostsView } from "@/ui/costs/view";

export default function Page() {
  return <CostsView />;
}
