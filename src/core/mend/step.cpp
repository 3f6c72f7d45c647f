#include "core/mend/step.h"

#include <algorithm>
#include <cmath>

namespace rim::mend {
namespace {

double areaOf(const Outline& outline) { return std::abs(signedArea(outline.path())); }

/// Looks for what a step is about among the findings of a drawing.
class Search {
 public:
  Search(const MendStep& step, const Drawing& drawing, const MendSettings& settings, double mmPerUnit)
      : step_(step),
        drawing_(drawing),
        places_(placesOf(drawing)),
        gap_(settings.gapMm),
        at_(step.at * mmPerUnit),
        area_(step.area * mmPerUnit * mmPerUnit) {}

  template <class Takes>
  std::optional<std::size_t> nearest(const std::vector<Finding>& findings, const Takes& takes) const {
    std::optional<std::size_t> best;
    for (std::size_t i = 0; i < findings.size(); ++i) {
      const Finding& f = findings[i];
      if (f.kind != step_.kind || distance(f.at, at_) > reachOf(f) || !takes(f)) continue;
      if (!best || distance(f.at, at_) < distance(findings[*best].at, at_)) best = i;
    }
    return best;
  }

  bool sameOutline(const Finding& f) const {
    const auto isOne = [this](OutlineId id) { return id == step_.outline || id == step_.other; };
    return isOne(f.outline) || isOne(f.other);
  }

  bool likeOutline(const Finding& f) const {
    if (step_.outline == OutlineId::None) return true;
    constexpr double kLike = 0.25;
    const double area = areaOf(outlineOf(f));
    const double reach = reachOf(f);
    return std::abs(area - area_) <= kLike * std::max(area, area_) + reach * reach;
  }

 private:
  const Outline& outlineOf(const Finding& f) const { return drawing_.outlines[places_.at(f.outline)]; }

  double reachOf(const Finding& f) const {
    constexpr double kGaps = 2;
    constexpr double kShareOfDiagonal = 0.02;
    const Box box = boxOf(outlineOf(f).path());
    return std::max(kGaps * gap_, kShareOfDiagonal * distance(box.low, box.high));
  }

  const MendStep& step_;
  const Drawing& drawing_;
  OutlinePlaces places_;
  double gap_;
  Point at_;
  double area_;
};

}  // namespace

MendStep stepFor(const Drawing& drawing, const Finding& finding, MendStep::What what, const std::string& repair,
                 double mmPerUnit) {
  MendStep step{what, finding.kind, finding.at * (1 / mmPerUnit), repair, finding.outline, finding.other};
  const auto place = placeOf(drawing, finding.outline);
  if (place) step.area = areaOf(drawing.outlines[*place]) / (mmPerUnit * mmPerUnit);
  return step;
}

std::optional<std::size_t> foundAgain(const MendStep& step, const Drawing& drawing,
                                      const std::vector<Finding>& findings, const MendSettings& settings,
                                      double mmPerUnit) {
  const Search search(step, drawing, settings, mmPerUnit);
  if (const auto same = search.nearest(findings, [&](const Finding& f) { return search.sameOutline(f); })) return same;
  return search.nearest(findings, [&](const Finding& f) { return search.likeOutline(f); });
}

}  // namespace rim::mend
