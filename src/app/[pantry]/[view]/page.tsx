import { notFound } from "next/navigation";
import { componentOf } from "@/ui/view-components";

export default async function Page({ params }: { params: Promise<{ view: string }> }) {
  const View = componentOf((await params).view);
  return View ? <View /> : notFound();
}
