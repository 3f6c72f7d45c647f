#include "core/mend/find/whole_faults.h"

#include <algorithm>

#include "core/mend/find/broken_strokes.h"
#include "core/mend/find/small_faults.h"

namespace rim::mend {
namespace {

class WholeSearch {
 public:
  WholeSearch(const Drawing& drawing, const std::vector<Extent>& extents, const MendSettings& settings)
      : drawing_(drawing), paths_(pathsOf(drawing)), extents_(extents), settings_(settings) {}

  std::vector<Finding> run(const std::vector<LooseEnd>& loose, const std::vector<StrokePair>& pairs) {
    findEnds(loose);
    findStrokes(pairs);
    findAside();
    return std::move(found_);
  }

 private:
  void add(FindingKind kind, Point at, std::size_t outline, std::size_t other, double sizeMm, std::string words,
           std::vector<double> lengthsMm, std::string repair) {
    found_.push_back({kind, at, drawing_.outlines[outline].id, drawing_.outlines[other].id, sizeMm, std::move(words),
                      std::move(lengthsMm), std::move(repair)});
  }

  void findEnds(const std::vector<LooseEnd>& loose) {
    std::vector<End> ends;
    for (const LooseEnd& one : loose) ends.push_back(one.end);
    for (const EndPair& p : brokenStrokes(drawing_, ends)) {
      add(FindingKind::OpenEnd, lerp(p.a.place, p.b.place, 0.5), p.a.path, p.b.path, p.gapMm,
          p.a.path == p.b.path ? "The pen's ink failed on {} here; the ring goes on at the other side."
                               : "The pen's ink failed on {} here; the line goes on at the other side.",
          {p.gapMm}, "bridge");
    }
    const LonelyEnds lonely(drawing_, ends);
    for (std::size_t i = 0; i < loose.size(); ++i) {
      if (!loose[i].isFault) continue;
      const LonelyEnd e = lonely.at(i);
      const std::string nearest = e.nearest ? " The nearest other end is {} away." : "";
      add(FindingKind::OpenEnd, e.end.place, e.end.path, e.nearest ? e.nearest->path : e.end.path, e.gapMm,
          "The line ends here, and nothing lies within {} to join it to." + nearest, {settings_.gapMm, e.gapMm}, "");
    }
  }

  void findStrokes(const std::vector<StrokePair>& pairs) {
    const auto closed = static_cast<std::size_t>(
        std::count_if(paths_.begin(), paths_.end(), [](const Path& path) { return path.closed; }));
    // A thin ring among other parts is a part; where most outlines come in pairs, strokes were drawn.
    const bool ofStrokes = 4 * pairs.size() >= closed;
    for (const StrokePair& pair : pairs) {
      if (!ofStrokes && pair.widthMm > settings_.hairMm) continue;
      std::string words = "The two edges of a stroke {} wide; cut like this the stroke falls out.";
      if (!pair.unlike.empty()) words += " The outer edge has a whisker or a corner that the inner one does not show.";
      const Point at = pair.unlike.empty() ? paths_[pair.outer].start : pair.unlike.front();
      add(FindingKind::StrokePair, at, pair.outer, pair.inner, pair.widthMm, std::move(words), {pair.widthMm}, "");
    }
  }

  void findAside() {
    const std::vector<std::size_t> aside = strays(paths_, extents_);
    Paths rest;
    std::vector<Extent> extents;
    std::vector<std::size_t> at;
    Box box;
    for (std::size_t p = 0; p < paths_.size(); ++p) {
      if (std::binary_search(aside.begin(), aside.end(), p)) continue;
      rest.push_back(paths_[p]);
      extents.push_back(extents_[p]);
      at.push_back(p);
      box.include(extents_[p].box);
    }
    for (const std::size_t p : aside) {
      Box with = box;
      with.include(extents_[p].box);
      add(FindingKind::Stray, paths_[p].start, p, p, sizeOf(paths_[p]),
          "Far outside everything else: with it the drawing measures {} by {} instead of {} by {}.",
          {with.width(), with.height(), box.width(), box.height()}, "");
    }
    for (const std::size_t f : frames(rest, extents, true)) {
      add(FindingKind::Frame, rest[f].start, at[f], at[f], sizeOf(rest[f]),
          "A rectangle that only frames all the others; it would be cut, too.", {}, "");
    }
  }

  const Drawing& drawing_;
  Paths paths_;
  const std::vector<Extent>& extents_;
  const MendSettings& settings_;
  std::vector<Finding> found_;
};

}  // namespace

std::vector<Finding> wholeFaults(const Drawing& drawing, const std::vector<Extent>& extents,
                                 const std::vector<LooseEnd>& loose, const std::vector<StrokePair>& pairs,
                                 const MendSettings& settings) {
  return WholeSearch(drawing, extents, settings).run(loose, pairs);
}

}  // namespace rim::mend
