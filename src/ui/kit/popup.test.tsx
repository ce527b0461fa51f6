import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { Button } from "./kit";
import { Popup } from "./popup";

const show = () =>
  render(
    <>
      <Popup
        button={(opener) => <Button {...opener}>Export</Button>}
        align="end"
        label="Export as a file"
        className="w-72"
      >
        <input aria-label="File name" />
      </Popup>
      <button type="button">Elsewhere</button>
    </>,
  );
const button = () => screen.getByRole("button", { name: "Export", hidden: true });

describe("a button with a panel", () => {
  it("opens the panel with the focus in it, and gives it back on Escape", async () => {
    show();
    expect(button().getAttribute("aria-expanded")).toBe("false");
    button().focus();
    fireEvent.click(button());
    const panel = await screen.findByRole("dialog", { name: "Export as a file" });
    expect(button().getAttribute("aria-expanded")).toBe("true");
    await waitFor(() => expect(panel.contains(document.activeElement)).toBe(true));
    fireEvent.keyDown(document.activeElement as Element, { key: "Escape" });
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await waitFor(() => expect(document.activeElement).toBe(button()));
    expect(button().getAttribute("aria-expanded")).toBe("false");
  });

  it("closes by its own button, and opens again", async () => {
    show();
    for (let i = 0; i < 2; i++) {
      fireEvent.click(button());
      await screen.findByRole("dialog");
      // The panel listens a moment after it opened.
      await act(() => new Promise((done) => setTimeout(done, 10)));
      fireEvent.pointerDown(button());
      fireEvent.click(button());
      await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    }
  });

  it("leaves the focus where someone clicks outside", async () => {
    show();
    fireEvent.click(button());
    const panel = await screen.findByRole("dialog");
    await waitFor(() => expect(panel.contains(document.activeElement)).toBe(true));
    await act(() => new Promise((done) => setTimeout(done, 10)));
    const elsewhere = screen.getByRole("button", { name: "Elsewhere" });
    fireEvent.pointerDown(elsewhere, { button: 0, pointerType: "mouse" });
    fireEvent.click(elsewhere);
    elsewhere.focus();
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await act(() => new Promise((done) => setTimeout(done, 10)));
    expect(document.activeElement).toBe(elsewhere);
  });
});
