import { Empty } from "@/ui/kit/kit";

export default function Loading() {
  return <Empty title="Opening the view">This takes a moment.</Empty>;
}
