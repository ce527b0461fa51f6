"use client";
/** Keys of names in other scripts: the tables for them are loaded once someone types such a letter. */
import { useEffect } from "react";
import { transliterateBy } from "@/core/schema/names";

const OTHER = /[^\p{Script=Latin}\p{Script=Common}\p{Script=Inherited}]/u;

export function useTransliteration(): void {
  useEffect(() => {
    const typed = ({ target }: Event) => {
      const text = target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement ? target.value : "";
      if (!OTHER.test(text)) return;
      window.removeEventListener("input", typed, true);
      void import("any-ascii").then(
        ({ default: latin }) => transliterateBy(latin),
        () => undefined,
      );
    };
    window.addEventListener("input", typed, true);
    return () => window.removeEventListener("input", typed, true);
  }, []);
}
