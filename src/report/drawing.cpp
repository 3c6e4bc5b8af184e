#include "report/drawing.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <pugixml.hpp>
#include <sstream>

#include "base/text.h"
#include "report/layout.h"

namespace elmcart {
namespace {

constexpr double kLetter = 6.6, kLine = 15;  // of text of 11 pixels

class Canvas {
 public:
  Canvas() : svg_(document_.append_child("svg")) {
    svg_.append_attribute("xmlns") = "http://www.w3.org/2000/svg";
    svg_.append_attribute("role") = "img";
    svg_.append_attribute("font-family") = "DejaVu Sans, sans-serif";
    svg_.append_attribute("font-size") = "11";
  }

  void text(double x, double y, const std::string& words, const char* css, const char* colour, bool middle = false) {
    pugi::xml_node t = shape("text", css);
    number(t, "x", x);
    number(t, "y", y);
    t.append_attribute("fill") = colour;
    if (middle) t.append_attribute("text-anchor") = "middle";
    t.text() = words.c_str();
  }
  void line(double x1, double y1, double x2, double y2, const char* css, const char* colour, bool dashed = false) {
    pugi::xml_node l = shape("line", css);
    number(l, "x1", x1);
    number(l, "y1", y1);
    number(l, "x2", x2);
    number(l, "y2", y2);
    l.append_attribute("stroke") = colour;
    if (dashed) l.append_attribute("stroke-dasharray") = "4 3";
  }
  void box(double x, double y, double width, double height, const char* css, const char* fill, const char* stroke) {
    pugi::xml_node r = shape("rect", css);
    number(r, "x", x);
    number(r, "y", y);
    number(r, "width", width);
    number(r, "height", height);
    number(r, "rx", 4);
    r.append_attribute("fill") = fill;
    if (stroke) r.append_attribute("stroke") = stroke;
  }
  void dot(double x, double y, const char* css, const char* fill) {
    pugi::xml_node c = shape("circle", css);
    number(c, "cx", x);
    number(c, "cy", y);
    number(c, "r", 4);
    c.append_attribute("fill") = fill;
  }
  std::string made(double width, double height) {
    number(svg_, "width", width);
    number(svg_, "height", height);
    svg_.append_attribute("viewBox") = fmt::format("0 0 {:g} {:g}", width, height).c_str();
    std::ostringstream out;
    document_.save(out, "", pugi::format_raw | pugi::format_no_declaration);
    return out.str();
  }

 private:
  pugi::xml_node shape(const char* name, const char* css) {
    pugi::xml_node node = svg_.append_child(name);
    node.append_attribute("class") = css;
    return node;
  }
  static void number(pugi::xml_node node, const char* name, double value) { node.append_attribute(name) = fmt::format("{:g}", std::round(value * 10) / 10).c_str(); }

  pugi::xml_document document_;
  pugi::xml_node svg_;
};

}  // namespace

std::string lanesSvg(const std::vector<std::string>& lanes, const std::vector<LaneStep>& steps) {
  constexpr double kGap = 14;
  double width = std::clamp(1000.0 / static_cast<double>(lanes.size()), 210.0, 380.0);
  auto left = [&](size_t lane) { return static_cast<double>(lane) * width; };
  Canvas canvas;
  for (size_t i = 0; i < lanes.size(); ++i) canvas.text(left(i) + width / 2, 13, cutEnd(lanes[i], static_cast<size_t>(width / kLetter)), "soft", "#566573", true);
  double y = 22, before = 0, beforeX = 0;
  std::vector<double> rails;
  for (size_t n = 0; n < steps.size(); ++n) {
    const LaneStep& step = steps[n];
    std::vector<std::string> lines = splitLines(wrapped(fmt::format("{}. {}", step.number, step.text), static_cast<size_t>((width - 2 * kGap - 12) / kLetter), 0));
    double height = static_cast<double>(lines.size()) * kLine + 8, x = left(step.lane) + kGap, middle = x + width / 2 - kGap;
    if (n > 0) {
      // Down to the height between the steps, across, and down again.
      canvas.line(beforeX, before, beforeX, y - 5, "rail", "#8796a3");
      if (beforeX != middle) canvas.line(beforeX, y - 5, middle, y - 5, "rail", "#8796a3");
      canvas.line(middle, y - 5, middle, y, "rail", "#8796a3");
    }
    canvas.box(x, y, width - 2 * kGap, height, step.bad ? "box bad" : "box", "#f4f7f9", step.bad ? "#b53a20" : "#d9e0e5");
    for (size_t k = 0; k < lines.size(); ++k) canvas.text(x + 6, y + 15 + static_cast<double>(k) * kLine, lines[k], step.bad ? "badtext" : "text", step.bad ? "#b53a20" : "#1d2830");
    before = y + height;
    beforeX = middle;
    y = before + 10;
  }
  return canvas.made(width * static_cast<double>(lanes.size()), y);
}

std::string livesSvg(const std::vector<Life>& lives, double end, const std::string& first, const std::string& last) {
  constexpr double kNames = 190, kWidth = 560, kRow = 20;
  Canvas canvas;
  double y = 8, scale = end > 0 ? kWidth / end : 0;
  for (const Life& life : lives) {
    canvas.text(4, y + 12, cutEnd(life.name, static_cast<size_t>((kNames - 8) / kLetter)), "text", "#1d2830");
    canvas.line(kNames, y + 8, kNames + kWidth, y + 8, "rail", "#d9e0e5");
    canvas.box(kNames + life.from * scale, y + 3, std::max(2.0, (life.to - life.from) * scale), 10, "life", "#2a6f97", nullptr);
    for (const LifeMark& mark : life.marks) canvas.dot(kNames + mark.at * scale, y + 8, mark.bad ? "badlife" : "life", mark.bad ? "#b53a20" : "#17323f");
    y += kRow;
    // What the marks mean, a line each: they may stand close together.
    for (const LifeMark& mark : life.marks) {
      if (mark.text.empty()) continue;
      double x = kNames + mark.at * scale;
      bool right = x + static_cast<double>(columns(mark.text)) * kLetter > kNames + kWidth + 40;
      double start = right ? std::max(0.0, kNames + kWidth + 40 - static_cast<double>(columns(mark.text)) * kLetter) : x;
      canvas.text(start, y + 9, mark.text, mark.bad ? "badtext" : "soft", mark.bad ? "#b53a20" : "#566573");
      y += kLine;
    }
    y += 4;
  }
  canvas.line(kNames, y + 2, kNames + kWidth, y + 2, "rail", "#8796a3");
  canvas.text(kNames, y + 16, first, "soft", "#566573");
  canvas.text(kNames + kWidth - static_cast<double>(columns(last)) * kLetter * 0.9, y + 16, last, "soft", "#566573");
  return canvas.made(kNames + kWidth + 40, y + 24);
}

namespace {

// "thread 1", "thread 2" and their steps; what is told before them is how they come to run.
std::string threadsDrawing(const Finding& f) {
  std::vector<LaneStep> steps;
  std::string who;
  size_t number = 0;
  for (const Evidence& e : f.evidence) {
    ++number;
    std::string_view step;
    int lane = laneOf(e.note, &step);
    if (lane == 0) continue;
    who = e.note.substr(0, e.note.find(' '));
    steps.push_back({static_cast<size_t>(lane - 1), number, std::string(step)});
  }
  if (steps.size() < 2) return "";
  steps.back().bad = true;
  return lanesSvg({who + " 1", who + " 2"}, steps);
}

// A lane a file, in the order in which they come.
std::string orderDrawing(const Program& p, const Finding& f) {
  constexpr size_t kMostLanes = 4;
  std::vector<std::string> files;
  std::vector<LaneStep> steps;
  for (const Evidence& e : f.evidence) {
    std::string file = p.path(e.place);
    size_t lane = static_cast<size_t>(std::find(files.begin(), files.end(), file) - files.begin());
    if (lane == files.size()) files.push_back(file);
    steps.push_back({lane, steps.size() + 1, e.note});
  }
  if (files.size() < 2 || files.size() > kMostLanes || steps.size() < 2) return "";
  steps.back().bad = true;
  for (std::string& file : files) file = file.substr(file.rfind('/') + 1);
  return lanesSvg(files, steps);
}

// The note behind such a word: "registered: …".
std::string_view noteOf(const Finding& f, std::string_view word) {
  for (const Evidence& e : f.evidence)
    if (e.note.size() > word.size() + 1 && e.note.compare(0, word.size(), word) == 0 && e.note[word.size()] == ':') return std::string_view(e.note).substr(word.size() + 2);
  return {};
}

std::string subscriberDrawing(const Finding& f) {
  std::string_view registered = noteOf(f, "registered"), dies = noteOf(f, "dies"), listed = noteOf(f, "still listed");
  if (dies.empty()) dies = noteOf(f, "ends");
  if (registered.empty() || dies.empty()) return "";
  Life list{"the list", 0, 10, {}}, subscriber{"who registered", 2, 6, {{2, std::string(registered), false}, {6, "its end: " + std::string(dies), false}}};
  list.marks.push_back({8, listed.empty() ? "the list still has it" : std::string(listed), true});
  return livesSvg({subscriber, list}, 10, "start", "end of the program");
}

}  // namespace

std::string findingDrawing(const Program& p, const Finding& f) {
  if (std::string drawn = threadsDrawing(f); !drawn.empty()) return drawn;
  if (f.check.compare(0, 10, "init.order") == 0) return orderDrawing(p, f);
  return subscriberDrawing(f);
}

}  // namespace elmcart
