// A function that a library is given runs later; one that walks a list runs at once.
import React from "react";

const Board = React.forwardRef((props) => {  // near: init.order-within-class  // harmless: Board
  return styles.board + props.name;
});
const widths = [1, 2].map((one) => one + scale.factor);  // finding: init.order-within-class  // harmless: widths

const styles = { board: "wide" };  // harmless: styles
const scale = { factor: 2 };  // entity: global-variable scale eager language

export function grow() {
  scale.factor++;
  return [Board, widths];
}
