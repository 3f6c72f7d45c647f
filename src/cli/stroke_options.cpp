#include "cli/stroke_options.h"

#include <array>
#include <map>

namespace rim::cli {
namespace {

std::string checkLimit(const std::string& text) {
  if (text == "auto" || isNumberWithin(text, trace::kLeastStrokeLimitPx, trace::kMostStrokeLimitPx)) return {};
  return "--stroke-limit takes auto or a width from 0.1 to 10000 px";
}

/// The words for a choice, in the order of its values.
template <typename Enum, std::size_t N>
std::map<std::string, Enum> wordsFor(const std::array<const char*, N>& names) {
  std::map<std::string, Enum> words;
  for (std::size_t i = 0; i < N; ++i) words[names[i]] = static_cast<Enum>(i);
  return words;
}

}  // namespace

void addStrokes(Command& command, StrokeOptions& o) {
  command
      .choice("--method", o.method, wordsFor<trace::TraceMethod>(trace::kTraceMethodNames),
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
      .within(0.0, trace::kMostHealPx)
      .showsDefault();
  command
      .choice("--ends", o.ends, wordsFor<trace::StrokeEnds>(trace::kStrokeEndsNames),
              "a free end lies where the pen's middle stopped, half a width inside the ink's tip (pen), or at the tip "
              "(ink)")
      .takes("ENDS")
      .standsFor("pen");
  command.add("--stroke-look", o.look, "centrelines in SVG: as a hairline, or as wide (width) as they were drawn")
      .oneOf({"hairline", "width"})
      .takes("LOOK")
      .showsDefault();
}

void applyStrokes(trace::TraceSettings& settings, const StrokeOptions& o) {
  settings.method = o.method;
  settings.strokes = {o.limit == "auto" ? std::optional<double>() : std::stod(o.limit), o.healPx, o.ends};
}

}  // namespace rim::cli
