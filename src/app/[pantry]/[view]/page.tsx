import { View } from "@/ui/view-components";
import type { ViewName } from "@/ui/views";

/** Its layout has seen that there is such a view. */
export default async function Page({ params }: { params: Promise<{ view: string }> }) {
  return <View name={(await params).view as ViewName} />;
}
