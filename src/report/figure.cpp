#include "report/figure.h"

#include <fmt/format.h>
#include <gvc.h>

#include <memory>
#include <pugixml.hpp>
#include <sstream>

#include "base/text.h"

namespace elmcart {
namespace {

std::string inQuotes(std::string_view text) {
  std::string out = "\"";
  for (char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += c;
  }
  return out + "\"";
}

// The last two parts of a long name: enough to tell, short enough to draw.
std::string shortName(const std::string& name) {
  if (name.find('/') != std::string::npos) return name;
  std::string_view scope = scopePart(name);
  if (scope.empty() || name.size() <= 28) return name;
  return std::string(lastPart(name));
}

}  // namespace

std::string reachDot(const Analysis& a, size_t entity, bool tests) {
  const Entity& e = a.survey.entities[entity];
  DrawnReach drawn = drawnReach(reachOf(a, entity), tests);
  // The limits of the network simplex keep the layout of a tangle within a second or two.
  std::string out = "digraph reach {\n  rankdir=RL;\n  bgcolor=white;\n  nodesep=0.18;\n  ranksep=0.7;\n  nslimit=2;\n  nslimit1=2;\n  mclimit=0.5;\n"
                    "  node [fontname=\"DejaVu Sans\", fontsize=11, shape=box, style=\"rounded,filled\", color=\"#5b6b7a\", fillcolor=\"#f4f7f9\", margin=\"0.12,0.06\"];\n"
                    "  edge [fontname=\"DejaVu Sans\", fontsize=9, color=\"#8796a3\", arrowsize=0.6];\n";
  if (drawn.edgesLeftOut > 0) out += "  label=" + inQuotes(counted(drawn.edgesLeftOut, "call between them is", "calls between them are") + " not drawn") + ";\n  fontname=\"DejaVu Sans\";\n  fontsize=10;\n";
  out += "  entity [label=" + inQuotes(e.shown + "\n" + std::string(kindText(e.toldKind()))) + ", fillcolor=\"#c8462c\", color=\"#8f2c18\", fontcolor=white, fontsize=13];\n";
  for (size_t i = 0; i < drawn.nodes.size(); ++i) {
    const DrawnNode& node = drawn.nodes[i];
    std::string fill = node.tests ? "#eef0e4" : node.distance == 0 ? "#f8d9c9" : "#f4f7f9";
    std::string style = node.tests ? ", style=\"rounded,filled,dashed\"" : node.units > 1 ? ", peripheries=2" : "";
    out += fmt::format("  n{} [label={}, fillcolor=\"{}\"{}];\n", i, inQuotes(node.units > 1 ? node.label : shortName(node.label)), fill, style);
  }
  for (const ReachEdge& edge : drawn.edges) {
    if (edge.to == SIZE_MAX) out += fmt::format("  n{} -> entity [label=\"{}\", color=\"{}\", penwidth={:.1f}];\n", edge.from, counted(edge.count, "site", "sites"), edge.writes ? "#c8462c" : "#5b6b7a", edge.count > 4 ? 2.0 : 1.3);
    else out += fmt::format("  n{} -> n{} [style=dashed];\n", edge.from, edge.to);
  }
  return out + "}\n";
}

std::string reachGraphML(const Analysis& a, size_t entity) {
  const Entity& e = a.survey.entities[entity];
  Reach reach = reachOf(a, entity);
  pugi::xml_document document;
  pugi::xml_node root = document.append_child("graphml");
  root.append_attribute("xmlns") = "http://graphml.graphdrawing.org/xmlns";
  auto key = [&](const char* id, const char* of, const char* name, const char* type) {
    pugi::xml_node k = root.append_child("key");
    k.append_attribute("id") = id;
    k.append_attribute("for") = of;
    k.append_attribute("attr.name") = name;
    k.append_attribute("attr.type") = type;
  };
  key("label", "node", "label", "string");
  key("distance", "node", "distance", "int");
  key("tests", "node", "tests", "boolean");
  key("count", "edge", "count", "int");
  pugi::xml_node graph = root.append_child("graph");
  graph.append_attribute("edgedefault") = "directed";
  auto data = [](pugi::xml_node parent, const char* name, const std::string& value) {
    pugi::xml_node d = parent.append_child("data");
    d.append_attribute("key") = name;
    d.text() = value.c_str();
  };
  pugi::xml_node node = graph.append_child("node");
  node.append_attribute("id") = "entity";
  data(node, "label", e.id);
  for (size_t i = 0; i < reach.units.size(); ++i) {
    pugi::xml_node n = graph.append_child("node");
    n.append_attribute("id") = ("n" + std::to_string(i)).c_str();
    data(n, "label", reach.units[i].name);
    data(n, "distance", std::to_string(reach.units[i].distance));
    data(n, "tests", reach.units[i].tests ? "true" : "false");
  }
  for (const ReachEdge& edge : reach.edges) {
    pugi::xml_node n = graph.append_child("edge");
    n.append_attribute("source") = ("n" + std::to_string(edge.from)).c_str();
    n.append_attribute("target") = edge.to == SIZE_MAX ? "entity" : ("n" + std::to_string(edge.to)).c_str();
    data(n, "count", std::to_string(edge.count));
  }
  std::ostringstream text;
  document.save(text, "  ");
  return text.str();
}

Result<std::string> renderDot(const std::string& dot, const std::string& format) {
  std::unique_ptr<GVC_t, int (*)(GVC_t*)> context(gvContext(), gvFreeContext);
  if (!context) return Error{"figure", "the graph layout could not be started"};
  std::unique_ptr<Agraph_t, int (*)(Agraph_t*)> graph(agmemread(dot.c_str()), agclose);
  if (!graph) return Error{"figure", "the graph could not be read"};
  if (gvLayout(context.get(), graph.get(), "dot") != 0) return Error{"figure", "the graph could not be laid out"};
  char* data = nullptr;
  unsigned length = 0;
  int failed = gvRenderData(context.get(), graph.get(), format.c_str(), &data, &length);
  std::string out;
  if (failed == 0 && data) out.assign(data, length);
  if (data) gvFreeRenderData(data);
  gvFreeLayout(context.get(), graph.get());
  if (failed != 0) return Error{"figure", "the format " + format + " could not be drawn"};
  return out;
}

}  // namespace elmcart
