export function stamp(papers) {
  return papers.inOrder();
}

export function clerk(papers) {
  return stamp(papers);
}

export function counter(papers) {
  return clerk(papers);
}

export function entrance(papers) {
  return counter(papers);
}

export function door(papers) {  // near: coupling.long-handoff
  return entrance(papers);
}
