"use client";
export { Failed as default } from "@/ui/frame/failed";
