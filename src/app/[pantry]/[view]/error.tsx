"use client";
import { Failed } from "@/ui/frame/failed";

export default function Failure({ reset }: { reset: () => void }) {
  return <Failed again={reset} />;
}
