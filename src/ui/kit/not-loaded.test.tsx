import { render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { orNotLoaded } from "./not-loaded";

it("shows a part that is loaded, and says so in its place if it can't be", async () => {
  const Part = ({ name }: { readonly name: string }) => <p>Part of {name}</p>;
  const Loaded = await orNotLoaded(Promise.resolve(Part));
  const Missing = await orNotLoaded(Promise.reject<typeof Part>(new Error("no connection")));
  render(
    <>
      <Loaded name="Eel" />
      <Missing name="Salt" />
    </>,
  );
  expect(screen.getByText("Part of Eel")).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toContain("couldn't be loaded");
  expect(screen.queryByText("Part of Salt")).toBeNull();
});
