/** Keys of a person, counted: a letter is one, a key held with another is two. */
import { expect, type Locator, type Page } from "@playwright/test";

export class CountedKeys {
  readings = 0;
  beside = 0;
  tabs = 0;

  constructor(private readonly page: Page) {}

  async press(key: string): Promise<void> {
    this.beside += key.split("+").length;
    await this.page.keyboard.press(key);
  }

  /** A reading, or several in one line, with the key that takes them. */
  async read(text: string): Promise<void> {
    this.readings += text.length + 1;
    await this.page.keyboard.type(text);
    await this.page.keyboard.press("Enter");
  }

  /** Presses a control that Tab reaches within three presses from where the page began. */
  async reach(target: Locator, key = "Enter"): Promise<void> {
    await expect(target).toBeVisible();
    await expect(target).toBeEnabled();
    for (let tabs = 0; ; tabs++) {
      if (await target.evaluate((e) => e === document.activeElement)) break;
      expect(tabs, `Tab presses to ${target}`).toBeLessThan(3);
      await this.press("Tab");
      this.tabs++;
    }
    await this.press(key);
  }
}
