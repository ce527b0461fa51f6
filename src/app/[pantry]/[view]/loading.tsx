import { Empty } from "@/ui/kit/kit";

export default function Loading() {
  return <Empty title="Opening the view">It is there in a moment.</Empty>;
}
