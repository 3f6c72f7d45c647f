#include "core/mend/find/local_faults.h"

#include <algorithm>
#include <set>

#include "core/error.h"
#include "core/mend/find/branches.h"
#include "core/mend/find/crossings.h"
#include "core/mend/find/small_faults.h"
#include "core/mend/find/straight_on.h"

namespace rim::mend {
namespace {

/// Gathers faults; each kind has its own function.
class LocalSearch {
 public:
  LocalSearch(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop)
      : drawing_(drawing), paths_(pathsOf(drawing)), settings_(settings), stop_(stop), index_(paths_) {}

  LocalFaults run() {
    findOpenEnds();
    ask();
    findTracks();
    findSmall();
    return std::move(found_);
  }

  std::vector<LocalFault> runTracks() {
    findTracks();
    return std::move(found_.faults);
  }

 private:
  /// The middle of a stroke that a pen drew ends where the pen stopped, and crosses what the pen crossed.
  bool isPenStroke(std::size_t outline) const { return drawing_.outlines[outline].stroke.usual > 0; }
  void ask() const {
    if (stop_.stop_requested()) throw Cancelled();
  }
  /// `words` has a "{}" for each of the lengths.
  void add(FindingKind kind, Point at, std::size_t outline, std::size_t other, double sizeMm, std::string words,
           std::vector<double> lengthsMm, std::string repair) {
    found_.faults.push_back({{kind, at, drawing_.outlines[outline].id, drawing_.outlines[other].id, sizeMm,
                              std::move(words), std::move(lengthsMm), std::move(repair)},
                             outline,
                             other});
  }

  void findTracks() {
    const std::vector<CoveredStretch> covered = coveredStretches(drawing_, index_, settings_, stop_);
    findDoubles(covered);
    findCrossings(covered);
  }

  void findOpenEnds() {
    const OpenEnds ends = pairEnds(drawing_, settings_);
    const Branches branches(paths_, index_, settings_.coincidentMm);
    for (const EndPair& p : ends.pairs) {
      const double gap = distance(p.a.place, p.b.place);
      const bool meet = gap <= settings_.coincidentMm;
      if (meet && branches.atJunction(p.a, p.b)) continue;
      add(FindingKind::OpenEnd, lerp(p.a.place, p.b.place, 0.5), p.a.path, p.b.path, gap,
          meet ? "Two ends meet here, but are not joined." : "Two ends are {} apart; the outline is open.", {gap},
          "join");
    }
    std::set<std::size_t> scrapped;
    for (const std::size_t p : scraps(paths_, ends, settings_, index_)) {
      if (isPenStroke(p)) continue;
      const double size = pathLength(paths_[p]);
      add(FindingKind::Speck, paths_[p].start, p, p, size, "A scrap of line {} long, joined to nothing.", {size},
          "drop");
      scrapped.insert(p);
    }
    for (const LonelyEnd& e : ends.lonely) {
      const std::size_t p = e.end.path;
      const bool atHome = branches.onLine(e.end) || isPenStroke(p) || scrapped.count(p) != 0;
      found_.loose.push_back({e.end, !atHome && !isZeroLength(paths_[p])});
    }
  }

  void findDoubles(const std::vector<CoveredStretch>& covered) {
    for (const CommonTrack& track : commonTracks(paths_, covered, settings_.doubleMm)) {
      const bool itself = track.path == track.byPath;
      const bool closed = paths_[track.path].closed;
      const bool mendable = itself && closed ? track.onItself : track.whole || !closed;
      // Outlines that meet at a small angle run side by side for a moment; that is no border.
      if (!mendable && track.lengthMm < kShortestBorderMm) continue;
      std::string words = itself && !mendable ? "This outline runs beside itself, too near to cut both, on {}."
                          : itself ? "This outline runs there and back on {} of its own line; it would be cut twice."
                          : track.whole ? "This line of {} lies on another one; it would be cut twice."
                          : mendable    ? "{} of this line lie on another one and would be cut twice."
                                        : "Two outlines share {} of border; it would be cut twice.";
      const CoveredStretch& c = track.longest;
      add(FindingKind::DoubleLine, pointAt(pieceOf(paths_[c.path], c.segment), (c.from + c.to) / 2), track.path,
          track.byPath, track.lengthMm, std::move(words), {track.lengthMm}, mendable ? "one" : "");
    }
  }

  void findCrossings(const std::vector<CoveredStretch>& covered) {
    const Branches branches(paths_, index_, settings_.coincidentMm);
    for (const TrueCrossing& c : trueCrossings(drawing_, index_, covered, settings_, stop_)) {
      if (isPenStroke(c.a.path) && isPenStroke(c.b.path)) continue;
      if (c.a.path != c.b.path) {
        // Where four areas meet the borders between them cross.
        if (branches.partsAnArea(c.a.path) && branches.partsAnArea(c.b.path)) continue;
        add(FindingKind::Crossing, c.place, c.a.path, c.b.path, 0, "Two outlines cross here.", {}, "");
        continue;
      }
      const double size = enclosedSize(c);
      const bool loop = size < settings_.loopMm;
      add(loop ? FindingKind::Loop : FindingKind::SelfCrossing, c.place, c.a.path, c.a.path, size,
          loop ? "The outline makes a loop of {} here."
               : "The outline crosses itself here; both sides of the crossing are larger than {}.",
          {loop ? size : settings_.loopMm}, loop ? "cut off" : "split");
    }
  }

  /// The larger side of what the crossing encloses; of the two sides of a closed path the smaller one.
  double enclosedSize(const TrueCrossing& c) const {
    const Path& path = paths_[c.a.path];
    const double inner = sizeOf(between(path, c.a, c.b));
    return path.closed ? std::min(inner, sizeOf(between(path, c.b, c.a))) : inner;
  }

  void findSmall() {
    for (std::size_t p = 0; p < paths_.size(); ++p) {
      if (isZeroLength(paths_[p])) {
        add(FindingKind::ZeroLength, paths_[p].start, p, p, 0, "A line of no length; nobody can see it.", {}, "drop");
      } else if (const double size = sizeOf(paths_[p]); paths_[p].closed && size < settings_.speckMm) {
        add(FindingKind::Speck, paths_[p].start, p, p, size, "A speck of {}.", {size}, "drop");
      }
    }
    for (const SegmentFault& f : coincidentNodes(paths_, settings_.coincidentMm)) {
      add(FindingKind::CoincidentNode, f.at, f.path, f.path, f.sizeMm, "Two nodes lie in one place.", {}, "merge");
    }
    const StraightOn straight(drawing_, index_, settings_.coincidentMm);
    for (const SegmentFault& f : spikes(paths_, settings_.doubleMm)) {
      const Path& path = paths_[f.path];
      const Piece back = pieceOf(path, (f.segment + 1) % path.segments.size());
      if (straight.isNeedle(pieceOf(path, f.segment), back, f.path)) continue;
      // What is longer than a gap can be seen, and may be meant as a line.
      const bool isLine = f.sizeMm > settings_.gapMm;
      add(FindingKind::Spike, f.at, f.path, f.path, f.sizeMm, "The outline runs out {} and back on the same line.",
          {f.sizeMm}, isLine ? "one" : "cut off");
    }
  }

  static constexpr double kShortestBorderMm = 1;

  const Drawing& drawing_;
  Paths paths_;
  const MendSettings& settings_;
  const std::stop_token& stop_;
  PieceIndex index_;
  LocalFaults found_;
};

}  // namespace

LocalFaults localFaults(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  return LocalSearch(drawing, settings, stop).run();
}

std::vector<LocalFault> trackFaults(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  return LocalSearch(drawing, settings, stop).runTracks();
}

}  // namespace rim::mend
