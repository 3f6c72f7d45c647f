#pragma once

#include <libxml/tree.h>

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>

#include "core/geometry/point.h"
#include "core/io/common/guarded_xml.h"

namespace rim::io::svg {

/// An SVG as a tree that its reader can rely on: every element has a namespace, the root has a size, and what a style
/// sheet hides says so itself.
struct SvgDocument {
  XmlDocument doc;
  xmlNode* root = nullptr;
  std::map<std::string, xmlNode*> byId;
  Point pagePx;                               ///< width and height in CSS px
  std::map<std::string, std::size_t> others;  ///< what is no outline, by name, and how often
  bool unitKnown = true;                      ///< false: width and height are in px or missing
  std::size_t outsideFiles = 0;               ///< references to other files; they are never followed
};

/// Parses an SVG without fetching anything, neither files nor entities from outside. libxml2's own limits hold: depth
/// 256, 10 MB a text, no entity that unfolds without bound.
/// Throws InputError beginning with the line of the fault.
SvgDocument parseSvg(std::string_view bytes);

/// The value of an attribute, whatever its namespace; none when it is missing.
std::optional<std::string> attributeOf(xmlNode* node, const char* name);

/// The element's name without its prefix.
std::string_view nameOf(const xmlNode* node);

/// Calls `visit(node)` for the element and every one within it, parents first, without recursion.
template <typename Visit>
void forEachElement(xmlNode* root, Visit visit) {
  xmlNode* node = root;
  while (node != nullptr) {
    if (node->type == XML_ELEMENT_NODE) visit(node);
    if (node->type == XML_ELEMENT_NODE && node->children != nullptr) {
      node = node->children;
      continue;
    }
    while (node != root && node != nullptr && node->next == nullptr) node = node->parent;
    if (node == root || node == nullptr) return;
    node = node->next;
  }
}

}  // namespace rim::io::svg
