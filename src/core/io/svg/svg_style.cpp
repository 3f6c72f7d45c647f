#include "core/io/svg/svg_style.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <map>
#include <string>

#include "core/io/svg/svg_document.h"

namespace rim::io::svg {
namespace {

using Declarations = std::map<std::string, std::string>;

struct Rules {
  std::map<std::string, Declarations, std::less<>> ofNames;
  std::map<std::string, Declarations, std::less<>> ofClasses;
};

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.front())) != 0) text.remove_prefix(1);
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.back())) != 0) text.remove_suffix(1);
  return text;
}

/// Calls `visit` for each part between separators.
template <typename Visit>
void split(std::string_view text, char separator, Visit visit) {
  while (true) {
    const auto end = text.find(separator);
    visit(trimmed(text.substr(0, end)));
    if (end == std::string_view::npos) return;
    text.remove_prefix(end + 1);
  }
}

std::string withoutComments(std::string_view css) {
  std::string out;
  while (true) {
    const auto open = css.find("/*");
    out += css.substr(0, open);
    const auto close = open == std::string_view::npos ? open : css.find("*/", open + 2);
    if (close == std::string_view::npos) return out;
    css.remove_prefix(close + 2);
  }
}

Declarations declarationsOf(std::string_view body) {
  static const std::array<std::string_view, 5> kKnown{"display", "visibility", "fill", "fill-rule", "stroke"};
  Declarations found;
  split(body, ';', [&found](std::string_view one) {
    const auto colon = one.find(':');
    if (colon == std::string_view::npos) return;
    const std::string_view name = trimmed(one.substr(0, colon));
    const std::string_view value = one.substr(colon + 1);
    if (std::find(kKnown.begin(), kKnown.end(), name) == kKnown.end()) return;
    found[std::string(name)] = std::string(trimmed(value.substr(0, value.find('!'))));
  });
  return found;
}

bool isNameLetter(char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '_' || c == '-'; }

void addRule(std::string_view selector, const Declarations& declarations, Rules& rules) {
  const auto last = selector.find_last_of(" \t\r\n>+~");
  if (last != std::string_view::npos) selector.remove_prefix(last + 1);
  const auto dot = selector.find('.');
  const std::string_view name = dot == std::string_view::npos ? selector : selector.substr(dot + 1);
  if (name.empty() || !std::all_of(name.begin(), name.end(), isNameLetter)) return;
  Declarations& known = (dot == std::string_view::npos ? rules.ofNames : rules.ofClasses)[std::string(name)];
  for (const auto& [property, value] : declarations) known[property] = value;
}

void addSheet(const std::string& css, Rules& rules) {
  std::size_t from = 0;
  for (std::size_t open = css.find('{'); open != std::string::npos; open = css.find('{', from)) {
    const std::size_t close = css.find('}', open);
    if (close == std::string::npos) return;
    const std::string_view text(css);
    const Declarations declarations = declarationsOf(text.substr(open + 1, close - open - 1));
    const auto add = [&](std::string_view selector) { addRule(selector, declarations, rules); };
    if (!declarations.empty()) split(text.substr(from, open - from), ',', add);
    from = close + 1;
  }
}

Rules rulesOf(xmlNode* root) {
  Rules rules;
  forEachElement(root, [&rules](xmlNode* node) {
    if (nameOf(node) != "style") return;
    xmlChar* content = xmlNodeGetContent(node);
    addSheet(withoutComments(content != nullptr ? reinterpret_cast<const char*>(content) : ""), rules);
    xmlFree(content);
  });
  return rules;
}

void give(xmlNode* node, const Declarations& declarations) {
  for (const auto& [name, value] : declarations) {
    xmlSetProp(node, xml(name.c_str()), xml(value.c_str()));
  }
}

}  // namespace

void applyStyleSheets(xmlNode* root) {
  const Rules rules = rulesOf(root);
  if (rules.ofNames.empty() && rules.ofClasses.empty()) return;
  forEachElement(root, [&rules](xmlNode* node) {
    if (const auto found = rules.ofNames.find(nameOf(node)); found != rules.ofNames.end()) give(node, found->second);
    std::string classes = attributeOf(node, "class").value_or("");
    std::replace_if(
        classes.begin(), classes.end(), [](unsigned char c) { return std::isspace(c) != 0; }, ' ');
    split(classes, ' ', [&](std::string_view name) {
      if (const auto found = rules.ofClasses.find(name); found != rules.ofClasses.end()) give(node, found->second);
    });
  });
}

}  // namespace rim::io::svg
