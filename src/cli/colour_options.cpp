#include "cli/colour_options.h"

#include <limits>
#include <map>

#include "core/error.h"

namespace rim::cli {
namespace {

/// A named colour means the ink that looks most like it, when that differs by no more than this (CIEDE2000).
constexpr double kSameColour = 20;

std::string checkColours(const std::string& text) {
  if (text == "auto") return {};
  return isWholeWithin(text, 2, colour::kMostInks)
             ? std::string{}
             : "--colours takes auto or a number from 2 to " + std::to_string(colour::kMostInks);
}

std::size_t inkLike(const colour::InkMap& map, const std::string& text) {
  const colour::Lab wanted = colour::labFrom(colour::colourFromHex(text));
  std::size_t best = 0;
  double least = std::numeric_limits<double>::infinity();
  std::string all;
  for (std::size_t i = 0; i < map.inks.size(); ++i) {
    const double off = colour::differenceOf(wanted, colour::labFrom(map.inks[i].colour));
    all += (all.empty() ? "" : ", ") + colour::hexOf(map.inks[i].colour);
    if (off >= least) continue;
    least = off;
    best = i;
  }
  if (least > kSameColour) throw InputError("no ink looks like " + text + ". The inks found are " + all + ".");
  return best;
}

void addMerges(const colour::InkMap& map, const ColourOptions& o, std::vector<colour::InkStep>& steps) {
  for (const std::string& pair : o.merge) {
    const auto comma = pair.find(',');
    if (comma == std::string::npos) throw InputError("--merge takes two colours: --merge '#b3202a,#c03040'.");
    const std::size_t from = inkLike(map, pair.substr(0, comma));
    const std::size_t into = inkLike(map, pair.substr(comma + 1));
    if (from == into)
      throw InputError("--merge " + pair + ": both are the same ink, " + colour::hexOf(map.inks[into].colour) + ".");
    steps.push_back(colour::stepFor(colour::MergeInks{from, into}));
  }
}

}  // namespace

void addColours(Command& command, ColourOptions& o) {
  const std::map<std::string, trace::InkLayout> layouts{{"silhouette", trace::InkLayout::Silhouette},
                                                        {"cut-out", trace::InkLayout::CutOut},
                                                        {"shared", trace::InkLayout::Shared}};
  const Option colours = command
                             .add("--colours", o.colours,
                                  "reduce to so many colours, the background counted, instead of thresholding: auto or "
                                  "2..64")
                             .checkedBy(checkColours)
                             .takes("N");
  command
      .choice("--layout", o.layout, layouts,
              "with --colours: silhouette (one outline round all that is not background), cut-out (each colour on "
              "its own layer) or shared (every border once)")
      .takes("LAYOUT")
      .standsFor("cut-out")
      .needs(colours);
  command.add("--keep", o.keep, "with --colours: only these are kept, as '#b3202a,#000'")
      .separatedBy(',')
      .takes("COLOUR,...")
      .needs(colours);
  command.add("--background", o.background, "with --colours: auto (what surrounds the picture) or a colour")
      .takes("COLOUR")
      .showsDefault()
      .needs(colours);
  command.add("--merge", o.merge, "with --colours: the first colour becomes the second, as A,B; may be repeated")
      .takes("A,B")
      .oneEach()
      .needs(colours);
}

job::Job withColours(job::Job job, const ColourOptions& o) {
  if (o.colours.empty()) return job;
  job.colours.on = true;
  job.colours.layout = o.layout;
  if (o.colours != "auto") job.colours.count = std::stoi(o.colours);
  job = job::withInks(std::move(job));
  const colour::InkMap found = *job.inks;
  addMerges(found, o, job.colours.steps);
  const auto setRole = [&job](std::size_t ink, colour::InkRole role) {
    job.colours.steps.push_back(colour::stepFor(colour::SetInkRole{ink, role}));
  };
  if (o.background != "auto") {
    const std::size_t background = inkLike(found, o.background);
    for (std::size_t i = 0; i < found.inks.size(); ++i)
      setRole(i, i == background ? colour::InkRole::Background : colour::InkRole::Keep);
  }
  if (!o.keep.empty()) {
    for (std::size_t i = 0; i < found.inks.size(); ++i) setRole(i, colour::InkRole::Background);
    for (const std::string& colour : o.keep) setRole(inkLike(found, colour), colour::InkRole::Keep);
  }
  return job;
}

}  // namespace rim::cli
