import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { NameInput } from "./name-input";

const NAMES = ["Coarse salt", "Cork", "Kelp", "Smoked eel"];
function shown(answer: string | null = null) {
  const taken = vi.fn<(name: string) => string | null>(() => answer);
  render(<NameInput label="Item" value="Kelp" names={NAMES} onDone={taken} />);
  const input = screen.getByRole("combobox", { name: "Item" }) as HTMLInputElement;
  return { taken, input, user: userEvent.setup() };
}

describe("a name that is typed", () => {
  it("completes to the first that fits, or to the one the arrows reach", async () => {
    const { taken, input, user } = shown();
    await user.clear(input);
    await user.type(input, "co");
    expect(screen.getAllByRole("option").map((o) => o.textContent)).toEqual(["Coarse salt", "Cork"]);
    await user.keyboard("{ArrowDown}{Enter}");
    expect(taken).toHaveBeenLastCalledWith("Cork");
    expect(input.getAttribute("aria-expanded")).toBe("false");
  });

  it("is taken when the field is left, as it was typed", async () => {
    const { taken, input, user } = shown();
    await user.clear(input);
    await user.type(input, "Tar");
    await user.tab();
    expect(taken).toHaveBeenLastCalledWith("Tar");
  });

  it("is given back by Escape", async () => {
    const { taken, input, user } = shown();
    await user.clear(input);
    await user.type(input, "Tar{Escape}");
    expect(input.value).toBe("Kelp");
    expect(taken).not.toHaveBeenCalled();
  });

  it("stays where it was typed, with the reason, where it is refused", async () => {
    const { input, user } = shown("There is no item called “Tar”.");
    await user.clear(input);
    await user.type(input, "Tar{Enter}");
    expect(screen.getByRole("alert").textContent).toContain("There is no item called “Tar”.");
    expect(input.value).toBe("Tar");
    expect(input.getAttribute("aria-invalid")).toBe("true");
  });
});
