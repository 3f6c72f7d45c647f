#include "cli/stroke_options.h"

#include <charconv>
#include <cmath>
#include <map>

namespace rim::cli {
namespace {

std::optional<double> numberIn(const std::string& text) {
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc{} || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::string checkLimit(const std::string& text) {
  if (text == "auto") return {};
  const auto value = numberIn(text);
  if (value && *value >= kLeastStrokeLimitPx && *value <= kMostStrokeLimitPx) return {};
  return "--stroke-limit takes auto or a width from 0.1 to 10000 px";
}

}  // namespace

std::string nameOf(TraceMethod method) {
  switch (method) {
    case TraceMethod::Outline:
      return "outline";
    case TraceMethod::Centreline:
      return "centreline";
    case TraceMethod::Mixed:
      return "mixed";
  }
  return {};
}

void addStrokes(Command& command, StrokeOptions& o) {
  const std::map<std::string, TraceMethod> methods{
      {"outline", TraceMethod::Outline}, {"centreline", TraceMethod::Centreline}, {"mixed", TraceMethod::Mixed}};
  const std::map<std::string, StrokeEnds> ends{{"pen", StrokeEnds::Pen}, {"ink", StrokeEnds::Ink}};
  command
      .choice("--method", o.method, methods,
              "outline (borders of the ink), centreline (the middle of its strokes) or mixed (middles of strokes up "
              "to --stroke-limit, borders of the rest)")
      .takes("METHOD")
      .standsFor("outline");
  command.add("--stroke-limit", o.limit, "with mixed: the widest stroke that becomes a line, px: auto or 0.1..10000")
      .checkedBy(checkLimit)
      .takes("PX")
      .showsDefault();
  command
      .add("--heal", o.healPx, "with centrelines: breaks up to this are closed where two ends point at each other, px")
      .within(0.0, kMostHealPx)
      .showsDefault();
  command
      .choice("--ends", o.ends, ends,
              "a free end lies where the pen's middle stopped, half a width inside the ink's tip (pen), or at the tip "
              "(ink)")
      .takes("ENDS")
      .standsFor("pen");
  command.add("--stroke-look", o.look, "centrelines in SVG: as a hairline, or as wide (width) as they were drawn")
      .oneOf({"hairline", "width"})
      .takes("LOOK")
      .showsDefault();
}

void applyStrokes(TraceSettings& settings, const StrokeOptions& o) {
  settings.method = o.method;
  settings.strokes = {o.limit == "auto" ? std::nullopt : numberIn(o.limit), o.healPx, o.ends};
}

}  // namespace rim::cli
