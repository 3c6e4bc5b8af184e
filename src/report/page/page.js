"use strict";
// Tables that are searched, filtered and sorted in place. All of the text stands in the page; without
// this script nothing is missing but these tools.
(() => {
  const made = (tag, attributes, ...children) => {
    const element = document.createElement(tag);
    for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
    element.append(...children);
    return element;
  };

  const tables = new Map();

  for (const box of document.querySelectorAll("[data-table]")) {
    const list = box.querySelector("[data-items]");
    const rows = Array.from(list.children, (element, at) => ({ element, at, text: null }));
    if (rows.length === 0) continue;
    const tools = box.querySelector(".tools");
    const search = made("input", { type: "search", placeholder: "Search", "aria-label": "Search in " + box.dataset.table });
    const count = made("span", { role: "status" });
    const selects = new Map();
    tools.append(search);
    for (const facet of box.dataset.facets.split(",")) {
      const [key, label] = facet.split(":");
      const numbers = new Map();
      for (const row of rows) numbers.set(row.element.dataset[key], (numbers.get(row.element.dataset[key]) || 0) + 1);
      if (numbers.size < 2) continue;
      const select = made("select", { "aria-label": label }, made("option", { value: "" }, label + ": all"));
      const values = Array.from(numbers.keys()).sort((x, y) => numbers.get(y) - numbers.get(x) || (x < y ? -1 : 1));
      for (const value of values) select.append(made("option", { value }, value + " (" + numbers.get(value) + ")"));
      select.addEventListener("change", show);
      selects.set(key, select);
      tools.append(select);
    }
    const all = made("button", { type: "button" }, "No filter");
    tools.append(all, count);
    // So many at a time: a browser takes long to lay out thousands.
    const step = 500;
    let most = step;
    const more = made("button", { type: "button", class: "next" }, "Show more");
    box.append(more);

    function show() {
      const words = search.value.toLowerCase().split(/\s+/).filter(Boolean);
      let found = 0;
      for (const row of rows) {
        if (words.length > 0 && row.text === null) row.text = row.element.textContent.toLowerCase();
        let fits = words.every((word) => row.text.includes(word));
        for (const [key, select] of selects) fits = fits && (select.value === "" || row.element.dataset[key] === select.value);
        found += fits;
        row.element.hidden = !fits || found > most;
      }
      count.textContent = (found === rows.length ? "" : found + " of ") + rows.length + " rows" + (found > most ? ", the first " + most + " shown" : "");
      more.hidden = found <= most;
    }
    more.addEventListener("click", () => {
      most += step;
      show();
    });
    // While words are typed, nothing is looked for.
    let waiting = 0;
    search.addEventListener("input", () => {
      clearTimeout(waiting);
      waiting = setTimeout(show, 150);
    });
    all.addEventListener("click", () => {
      search.value = "";
      for (const select of selects.values()) select.value = "";
      show();
    });

    for (const head of box.querySelectorAll("[data-sort]")) {
      const button = made("button", { type: "button", title: "Sort" }, ...head.childNodes);
      head.append(button);
      button.addEventListener("click", () => {
        const key = head.dataset.sort;
        const numeric = head.hasAttribute("data-numeric");
        const down = head.getAttribute("aria-sort") ? head.getAttribute("aria-sort") === "ascending" : numeric;
        for (const other of box.querySelectorAll("[data-sort]")) other.removeAttribute("aria-sort");
        head.setAttribute("aria-sort", down ? "descending" : "ascending");
        const compare = numeric ? (x, y) => x - y : (x, y) => (x < y ? -1 : x > y ? 1 : 0);
        const value = (row) => (numeric ? Number(row.element.dataset[key]) : row.element.dataset[key]);
        rows.sort((x, y) => (down ? -1 : 1) * compare(value(x), value(y)) || x.at - y.at);
        list.append(...rows.map((row) => row.element));
        show();
      });
    }
    tables.set(box.dataset.table, { selects, show, rows });
    show();
  }

  // A bar of a chart filters the table that it counts.
  for (const bar of document.querySelectorAll("[data-filter]")) {
    bar.addEventListener("click", () => {
      const table = tables.get(bar.dataset.of);
      const select = table && table.selects.get(bar.dataset.filter);
      if (!select) return;
      for (const other of table.selects.values()) other.value = "";
      select.value = bar.dataset.value;
      table.show();
    });
  }

  const openNamed = () => {
    const named = document.getElementById(decodeURIComponent(location.hash.slice(1)));
    if (named && named.matches("details")) {
      named.hidden = false;
      named.open = true;
      named.scrollIntoView();
    }
  };
  addEventListener("hashchange", openNamed);

  // What is shown is printed with its details, unless that would be a book.
  let opened = [];
  addEventListener("beforeprint", () => {
    const shown = Array.from(document.querySelectorAll("details.finding:not([hidden]):not([open])"));
    if (shown.length > 200) return;
    opened = shown;
    for (const each of opened) each.open = true;
  });
  addEventListener("afterprint", () => {
    for (const each of opened) each.open = false;
    opened = [];
  });

  const root = document.documentElement;
  const dark = () => (root.classList.contains("dark") || root.classList.contains("light") ? root.classList.contains("dark") : matchMedia("(prefers-color-scheme: dark)").matches);
  const button = made("button", { type: "button", id: "colours" }, dark() ? "Light" : "Dark");
  button.addEventListener("click", () => {
    const now = !dark();
    root.classList.toggle("dark", now);
    root.classList.toggle("light", !now);
    button.textContent = now ? "Light" : "Dark";
  });
  document.querySelector("nav").append(button);
  root.classList.remove("loading");
  openNamed();
})();
