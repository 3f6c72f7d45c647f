#include "core/io/svg/svg_document.h"

#include <array>
#include <charconv>
#include <cmath>
#include <vector>

#include "core/error.h"
#include "core/geometry/units.h"
#include "core/io/svg/svg_style.h"

namespace rim::io::svg {
namespace {

/// Files written by hand often forget the namespace.
void giveNamespace(xmlNode* root) {
  if (root->ns != nullptr) return;
  xmlNs* svg = xmlNewNs(root, xml("http://www.w3.org/2000/svg"), nullptr);
  forEachElement(root, [svg](xmlNode* node) {
    if (node->ns == nullptr) node->ns = svg;
  });
}

/// SVG 2 writes "href" where SVG 1.1 writes "xlink:href"; the reader knows the latter.
void giveOldReference(xmlNode* node) {
  const xmlAttr* plain = xmlHasNsProp(node, xml("href"), nullptr);
  const char* const kXlink = "http://www.w3.org/1999/xlink";
  if (plain == nullptr || plain->ns != nullptr || xmlHasNsProp(node, xml("href"), xml(kXlink)) != nullptr) return;
  xmlNs* xlink = xmlSearchNsByHref(node->doc, node, xml(kXlink));
  if (xlink == nullptr) xlink = xmlNewNs(node, xml(kXlink), xml("xlink"));
  if (xlink != nullptr) xmlSetNsProp(node, xlink, xml("href"), xml(attributeOf(node, "href").value_or("").c_str()));
}

struct Length {
  double px = 0;
  bool unitNamed = false;  ///< px and plain numbers do not count as named
};

/// A length as CSS has it; none for percentages, font sizes and nonsense.
std::optional<Length> lengthOf(const std::optional<std::string>& text) {
  static const std::map<std::string_view, double> kPx{
      {"", 1},           {"px", 1}, {"mm", 1 / kMmPerCssPx}, {"cm", 10 / kMmPerCssPx}, {"in", kMmPerInch / kMmPerCssPx},
      {"pt", 96.0 / 72}, {"pc", 16}};
  if (!text) return {};
  const auto from = text->find_first_not_of(" \t\r\n+");
  if (from == std::string::npos) return {};
  double value = 0;
  const char* const last = text->data() + text->size();
  const auto [end, error] = std::from_chars(text->data() + from, last, value);
  if (error != std::errc() || !std::isfinite(value) || value <= 0) return {};
  std::string_view unit(end, static_cast<std::size_t>(last - end));
  unit = unit.substr(0, unit.find_first_of(" \t\r\n"));
  if (unit == "%" || unit == "em" || unit == "ex") return {};
  const auto known = kPx.find(unit);
  return Length{value * (known == kPx.end() ? 1 : known->second), !unit.empty() && unit != "px"};
}

/// The root gets a width and a height in any case; without units they count as px.
void giveSize(SvgDocument& document) {
  std::vector<double> box;
  const std::string text = attributeOf(document.root, "viewBox").value_or("");
  for (const char *at = text.data(), *end = at + text.size(); at < end;) {
    double value = 0;
    const auto [next, error] = std::from_chars(at, end, value);
    if (error == std::errc()) box.push_back(value);
    at = error == std::errc() ? next : at + 1;
  }
  const bool hasBox = box.size() == 4 && box[2] > 0 && box[3] > 0;
  const auto give = [&](const char* name, double ofBox) {
    constexpr double kUsualSize = 100;
    const auto length = lengthOf(attributeOf(document.root, name));
    document.unitKnown = document.unitKnown && length && length->unitNamed;
    if (length) return length->px;
    const double px = hasBox ? ofBox : kUsualSize;
    std::array<char, 40> size{};  // to_chars: a decimal point in every language
    std::to_chars(size.data(), size.data() + size.size() - 1, px);
    xmlSetProp(document.root, xml(name), xml(size.data()));
    return px;
  };
  document.pagePx.x = give("width", hasBox ? box[2] : 0);
  document.pagePx.y = give("height", hasBox ? box[3] : 0);
}

/// What a document may hold that is no outline, by its element's name.
const std::map<std::string_view, std::string>& others() {
  static const std::map<std::string_view, std::string> kOthers{
      {"text", "texts (turn them into paths where they were drawn)"},
      {"image", "pictures"},
      {"foreignObject", "foreign objects"}};
  return kOthers;
}

}  // namespace

std::optional<std::string> attributeOf(xmlNode* node, const char* name) {
  xmlChar* value = xmlGetProp(node, xml(name));
  if (value == nullptr) return {};
  std::string text = reinterpret_cast<const char*>(value);
  xmlFree(value);
  return text;
}

std::string_view nameOf(const xmlNode* node) { return reinterpret_cast<const char*>(node->name); }

SvgDocument parseSvg(std::string_view bytes) {
  SvgDocument document;
  document.doc = readXml(bytes);
  document.root = xmlDocGetRootElement(document.doc.get());
  if (document.root == nullptr || nameOf(document.root) != "svg") {
    throw InputError("1: this is no SVG: its outermost element is not \"svg\".");
  }
  giveNamespace(document.root);
  applyStyleSheets(document.root);
  giveSize(document);
  forEachElement(document.root, [&document](xmlNode* node) {
    giveOldReference(node);
    if (const auto other = others().find(nameOf(node)); other != others().end()) ++document.others[other->second];
    if (const auto id = attributeOf(node, "id")) document.byId.emplace(*id, node);
    const std::string target = attributeOf(node, "href").value_or("#");
    if (!target.starts_with("#") && !target.starts_with("data:")) ++document.outsideFiles;
  });
  return document;
}

}  // namespace rim::io::svg
