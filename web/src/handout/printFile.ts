/** Prints a web page alone, in a frame that is cleared away afterwards. */
export async function printFile(file: Blob): Promise<void> {
  const frame = document.createElement('iframe');
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0;';
  frame.setAttribute('aria-hidden', 'true');
  const isLoaded = new Promise((resolve) => frame.addEventListener('load', resolve, { once: true }));
  frame.srcdoc = await file.text();
  document.body.append(frame);
  await isLoaded;
  await frame.contentDocument!.fonts.ready;
  frame.contentWindow!.addEventListener('afterprint', () => frame.remove());
  frame.contentWindow!.print();
}
