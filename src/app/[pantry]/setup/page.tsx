import { SetupView } from "@/ui/setup/view";

export default function Page() {
  return <SetupView />;
}
