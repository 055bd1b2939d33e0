/** How what visitors do with lists looks where nothing else is said. */
export const BASE_VISITORS = `
.visitor,
.search-box {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3) var(--s5);
}
.visitor input[type='search'],
.search-box input,
.visitor select,
.visitor button,
.search-box button {
  min-height: 2.25rem;
  padding: 0 0.6rem;
  border: 1px solid var(--muted);
  border-radius: var(--radius);
  background: transparent;
  color: inherit;
  font: inherit;
}
.visitor {
  margin-block: var(--s4) var(--s5);
}
.visitor summary {
  min-height: 2rem;
  cursor: pointer;
}
.visitor details[open] {
  flex-basis: 100%;
}
.visitor details ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1.25rem;
  margin: 0.25rem 0;
  padding: 0;
  list-style: none;
}
.visitor li label {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  min-height: 1.75rem;
}
.visitor li[class^='within'] {
  font-size: 0.9em;
}
.visitor .found {
  flex-basis: 100%;
  margin: 0;
}
.visitor .found a {
  margin-inline-start: 0.75rem;
}
`;
