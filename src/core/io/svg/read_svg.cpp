#include "core/io/svg/read_svg.h"

#include <libxml/tree.h>

#include <boost/mpl/set.hpp>
#include <boost/mpl/set/set50.hpp>
#include <svgpp/policy/xml/libxml2.hpp>
#include <svgpp/svgpp.hpp>

#include "core/geometry/units.h"
#include "core/io/svg/svg_document.h"
#include "core/io/svg/svg_outlines.h"

namespace rim::io::svg {
namespace {

using namespace svgpp;

/// What all elements of one reading share.
struct Reading {
  SvgDocument& document;
  SvgOutlines& outlines;
};

struct PathPolicy : policy::path::no_shorthands {
  static const bool quadratic_bezier_as_cubic = true;
};

/// How a shape is painted, as SVG has it at the start.
struct Paint {
  bool fills = true;
  bool strokes = false;
  bool evenOdd = false;
};

/// An element, with what it takes over from those around it.
class Element {
 public:
  Element(Reading& reading, const Affine& map, xmlNode* node) : reading_(&reading), node_(node), map_(map) {}
  Element(const Element& parent, xmlNode* node) : Element(parent) {
    node_ = node;
    map_ = parent.map();
    transform_ = {};
    at_ = {};
    target_.clear();
    shape_ = SvgShape(static_cast<int>(xmlGetLineNo(node)));
    reading_->outlines.countElement(shape_.line());
    if (const auto layer = layerOf(node)) layer_ = reading_->outlines.layerNamed(*layer);
  }

  void on_exit_element() {
    if (!isShown()) return;
    if (nameOf(node_) == "use") {
      addUsed();
      return;
    }
    if (paint_.fills && !paint_.strokes && !paint_.evenOdd) reading_->outlines.leaveOutHidden(shape_);
    reading_->outlines.add(shape_, map(), layer_);
  }

  template <class Number>
  void transform_matrix(const boost::array<Number, 6>& m) {
    transform_ = transform_ * Affine{m[0], m[1], m[2], m[3], m[4], m[5]};
  }

  void path_move_to(double x, double y, tag::coordinate::absolute) { shape_.moveTo({x, y}); }
  void path_line_to(double x, double y, tag::coordinate::absolute) { shape_.lineTo({x, y}); }
  void path_cubic_bezier_to(double x1, double y1, double x2, double y2, double x, double y, tag::coordinate::absolute) {
    shape_.cubicTo({x1, y1}, {x2, y2}, {x, y});
  }
  void path_elliptical_arc_to(double rx, double ry, double rotation, bool large, bool sweep, double x, double y,
                              tag::coordinate::absolute) {
    shape_.arcTo({rx, ry}, rotation, large, sweep, {x, y});
  }
  void path_close_subpath() { shape_.close(); }
  void path_exit() {}

  void set(tag::attribute::display, tag::value::none) { shown_ = false; }
  template <class Any>
  void set(tag::attribute::display, Any) {}
  void set(tag::attribute::visibility, tag::value::inherit) {}
  void set(tag::attribute::visibility, tag::value::visible) { visible_ = true; }
  template <class Any>
  void set(tag::attribute::visibility, Any) {
    visible_ = false;
  }

  void set(tag::attribute::fill, tag::value::none) { paint_.fills = false; }
  void set(tag::attribute::fill, tag::value::inherit) {}
  template <class... Any>
  void set(tag::attribute::fill, const Any&...) {
    paint_.fills = true;
  }
  void set(tag::attribute::stroke, tag::value::none) { paint_.strokes = false; }
  void set(tag::attribute::stroke, tag::value::inherit) {}
  template <class... Any>
  void set(tag::attribute::stroke, const Any&...) {
    paint_.strokes = true;
  }
  void set(tag::attribute::fill_rule, tag::value::evenodd) { paint_.evenOdd = true; }
  void set(tag::attribute::fill_rule, tag::value::nonzero) { paint_.evenOdd = false; }
  void set(tag::attribute::fill_rule, tag::value::inherit) {}

  // Of "use" alone: the places of shapes come as their paths.
  void set(tag::attribute::x, double v) { at_.x = v; }
  void set(tag::attribute::y, double v) { at_.y = v; }
  void set(tag::attribute::width, double v) { referenceSize_.x = v; }
  void set(tag::attribute::height, double v) { referenceSize_.y = v; }
  template <class Text>
  void set(tag::attribute::xlink::href, const Text&) {}
  template <class Text>
  void set(tag::attribute::xlink::href, tag::iri_fragment, const Text& fragment) {
    target_.assign(boost::begin(fragment), boost::end(fragment));
  }

  void set_viewport(double, double, double width, double height) {
    viewport_ = {width, height};
    lengths_.set_viewport_size(width, height);
  }
  void set_viewbox_size(double width, double height) {
    viewport_ = {width, height};
    lengths_.set_viewport_size(width, height);
  }
  void get_reference_viewport_size(double& width, double& height) const {
    if (referenceSize_.x > 0) width = referenceSize_.x;
    if (referenceSize_.y > 0) height = referenceSize_.y;
  }
  void disable_rendering() { shown_ = false; }

  using length_factory_type = factory::length::unitless<>;
  const length_factory_type& length_factory() const { return lengths_; }

  void skipped() { reading_->outlines.skipBadValue(shape_.line()); }

 private:
  /// Takes in what a "use" stands for.
  void addUsed();

  /// A group of the top level with a title is a layer; its colour is that of the first thing painted in it.
  static std::optional<Layer> layerOf(xmlNode* node) {
    if (nameOf(node) != "g" || node->parent == nullptr || nameOf(node->parent) != "svg") return {};
    if (node->parent->parent == nullptr || node->parent->parent->type != XML_DOCUMENT_NODE) return {};
    std::optional<Layer> layer;
    std::optional<std::string> colour;
    for (xmlNode* child = node->children; child != nullptr; child = child->next) {
      if (child->type != XML_ELEMENT_NODE) continue;
      if (nameOf(child) == "title") {
        xmlChar* text = xmlNodeGetContent(child);
        layer = Layer{text != nullptr ? reinterpret_cast<const char*>(text) : "", 0, 0, 0};
        xmlFree(text);
      }
      for (const char* paint : {"fill", "stroke"}) {
        const auto value = attributeOf(child, paint);
        if (!colour && value && value->size() == 7 && value->front() == '#') colour = value;
      }
    }
    if (layer && colour) {
      const auto rgb = static_cast<int>(std::strtol(colour->c_str() + 1, nullptr, 16));
      *layer = {layer->name, rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255};
    }
    return layer;
  }

  Affine map() const { return map_ * transform_; }
  bool isShown() const { return shown_ && visible_; }

  Reading* reading_;
  xmlNode* node_;
  Affine map_;        // of the element around this one
  Affine transform_;  // its own
  std::size_t layer_ = SvgOutlines::kNoLayer;
  bool shown_ = true;
  bool visible_ = true;
  Paint paint_;
  SvgShape shape_;
  Point viewport_;
  Point referenceSize_;
  Point at_;
  std::string target_;
  length_factory_type lengths_;
};

struct ChildFactories {
  template <class ParentContext, class ElementTag>
  struct apply {
    using type = factory::context::on_stack_with_xml_element<Element>;
  };
};

using Shapes = boost::mpl::set7<tag::element::path, tag::element::rect, tag::element::circle, tag::element::ellipse,
                                tag::element::line, tag::element::polyline, tag::element::polygon>;
using Elements = boost::mpl::insert<
    boost::mpl::insert<boost::mpl::insert<boost::mpl::insert<boost::mpl::insert<Shapes, tag::element::g>::type,
                                                             tag::element::svg>::type,
                                          tag::element::use_>::type,
                       tag::element::a>::type,
    tag::element::switch_>::type;
using ReferencedElements = boost::mpl::insert<Elements, tag::element::symbol>::type;
using Attributes = boost::mpl::fold<
    boost::mpl::protect<boost::mpl::joint_view<traits::shapes_attributes_by_element, traits::viewport_attributes>>,
    boost::mpl::set9<tag::attribute::transform, tag::attribute::display, tag::attribute::visibility,
                     tag::attribute::fill, tag::attribute::stroke, tag::attribute::fill_rule,
                     boost::mpl::pair<tag::element::use_, tag::attribute::xlink::href>,
                     boost::mpl::pair<tag::element::use_, tag::attribute::x>,
                     boost::mpl::pair<tag::element::use_, tag::attribute::y>>,
    boost::mpl::insert<boost::mpl::_1, boost::mpl::_2>>::type;
using UseAttributes = boost::mpl::insert<
    boost::mpl::insert<Attributes, boost::mpl::pair<tag::element::use_, tag::attribute::width>>::type,
    boost::mpl::pair<tag::element::use_, tag::attribute::height>>::type;

/// A wrong value is no reason to lose the drawing: the element keeps what could be read, and a note says so.
struct Lenient : policy::error::default_policy<Element> {
  template <class XmlElement, class Name>
  static bool unknown_element(const Element&, const XmlElement&, const Name&) {
    return true;
  }
  template <class XmlElement>
  static bool unexpected_element(const Element&, const XmlElement&) {
    return true;
  }
  template <class... Any>
  static bool unknown_attribute(const Element&, const Any&...) {
    return true;
  }
  template <class... Any>
  static bool unexpected_attribute(const Element&, const Any&...) {
    return true;
  }
  template <class AttributeTag>
  static bool required_attribute_not_found(const Element&, AttributeTag) {
    return true;
  }
  template <class AttributeTag, class Value>
  static bool parse_failed(Element& element, AttributeTag, const Value&) {
    element.skipped();
    return true;
  }
  template <class AttributeTag>
  static bool negative_value(Element& element, AttributeTag) {
    element.skipped();
    return true;
  }
};

using Document =
    document_traversal<context_factories<ChildFactories>, processed_elements<Elements>,
                       processed_attributes<UseAttributes>, path_policy<PathPolicy>,
                       viewport_policy<policy::viewport::as_transform>, error_policy<Lenient>,
                       length_policy<policy::length::forward_to_method<Element, const Element::length_factory_type>>>;

void Element::addUsed() {
  const auto found = reading_->document.byId.find(target_);
  if (found == reading_->document.byId.end()) {
    if (!target_.empty()) reading_->outlines.skipBadValue(shape_.line());
    return;
  }
  const SvgOutlines::Nesting nesting(reading_->outlines, target_, shape_.line());
  transform_ = transform_ * shift(at_);
  Document::load_referenced_element<referencing_element<tag::element::use_>,
                                    expected_elements<traits::reusable_elements>,
                                    processed_elements<ReferencedElements>>::load(found->second, *this);
}

}  // namespace

ReadResult readSvg(std::string_view bytes, const ReadOptions& options) {
  SvgDocument document = parseSvg(bytes);
  const double mmPerPx = options.mmPerUnit.value_or(kMmPerCssPx);
  SvgOutlines outlines(options.toleranceMm / mmPerPx, options.stop);
  Reading reading{document, outlines};
  Element root(reading, {}, document.root);
  Document::load_document(document.root, root);
  return outlines.result(document, mmPerPx, options);
}

}  // namespace rim::io::svg
