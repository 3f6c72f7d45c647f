#include "core/mend/repair/mend.h"

#include <algorithm>
#include <utility>

#include "core/error.h"
#include "core/mend/find/aside.h"
#include "core/mend/find/open_ends.h"
#include "core/mend/find/piece_index.h"
#include "core/mend/find/small_faults.h"
#include "core/mend/repair/join.h"
#include "core/mend/repair/one_line.h"
#include "core/mend/repair/simplify.h"
#include "core/mend/repair/strokes.h"
#include "core/mend/repair/tidy.h"
#include "core/mend/repair/untangle.h"

namespace rim::mend {
namespace {

class Mending {
 public:
  Mending(const Drawing& drawing, MendSettings settings, double longestSpikeMm, LongSpikes longer,
          const std::stop_token& stop)
      : drawing_(drawing),
        settings_(std::move(settings)),
        longestSpikeMm_(longestSpikeMm),
        longer_(longer),
        stop_(stop) {}

  Mended inRounds() {
    take("dropped-zero-length", withoutZeroLengths(drawing_));
    mendInRounds();
    return {std::move(drawing_), std::move(repairs_)};
  }

  Mended run() {
    take("dropped-zero-length", withoutZeroLengths(drawing_));
    drop("dropped-stray", settings_.dropStrays ? strays(pathsOf(drawing_)) : std::vector<std::size_t>{});
    mendInRounds();
    mendStrokes();
    dropSmall();
    drop("dropped-stray", settings_.dropStrays ? strays(pathsOf(drawing_)) : std::vector<std::size_t>{});
    drop("dropped-frame", settings_.dropFrame ? frames(pathsOf(drawing_), false) : std::vector<std::size_t>{});
    if (settings_.simplifyMm > 0) take("fewer-nodes", withFewestNodes(drawing_, settings_, stop_));
    return {oriented(drawing_), std::move(repairs_)};
  }

 private:
  void mendInRounds() {
    constexpr int kMostRounds = 6;
    for (int round = 0; round < kMostRounds && mendOnce(); ++round) {
      // Needles that come of parting stay what they are; only what was drawn out and back is a line.
      longer_ = LongSpikes::Stay;
    }
  }

  bool mendOnce() {
    std::size_t done = 0;
    done += take("merged-nodes", withoutCoincidentNodes(drawing_, settings_));
    done += take("cut-off-spike", withoutSpikes(drawing_, settings_, longestSpikeMm_, longer_));
    done += take("dropped-zero-length", withoutZeroLengths(drawing_));
    ask();
    if (settings_.doubles != DoubleRule::Leave) done += take("made-one", oneLineFromTwo(drawing_, settings_, stop_));
    ask();
    done += take("joined", joinEnds(drawing_, settings_));
    ask();
    done += take("untangled", untangled(drawing_, settings_, settings_.bowTies, stop_));
    return done > 0;
  }

  void mendStrokes() {
    if (settings_.doubles == DoubleRule::One || settings_.doubles == DoubleRule::Leave) return;
    StrokeLines lines = allStrokesToLines(drawing_, settings_, stop_);
    const std::size_t branches = lines.branches;
    if (take("stroke-to-line", {std::move(lines.drawing), lines.count}) > 0 && branches > 0)
      repairs_.push_back({"branch-kept", branches});
  }

  void dropSmall() {
    drop("dropped-scrap",
         scraps(pathsOf(drawing_), pairEnds(drawing_, settings_), settings_, PieceIndex(pathsOf(drawing_))));
    drop("dropped-speck", closedBelow(pathsOf(drawing_), settings_.smallerThanMm));
  }

  void drop(const std::string& kind, const std::vector<std::size_t>& paths) {
    take(kind, {withoutPaths(drawing_, paths), paths.size()});
  }

  std::size_t take(const std::string& kind, Repaired repaired) {
    if (repaired.count == 0) return 0;
    drawing_ = std::move(repaired.drawing);
    const auto known =
        std::find_if(repairs_.begin(), repairs_.end(), [&](const RepairCount& r) { return r.kind == kind; });
    if (known == repairs_.end()) {
      repairs_.push_back({kind, repaired.count});
    } else {
      known->count += repaired.count;
    }
    return repaired.count;
  }

  void ask() const {
    if (stop_.stop_requested()) throw Cancelled();
  }

  Drawing drawing_;
  MendSettings settings_;
  double longestSpikeMm_;
  LongSpikes longer_;
  const std::stop_token& stop_;
  std::vector<RepairCount> repairs_;
};

}  // namespace

Mended mended(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  MendSettings own = settings;
  own.loopMm = std::min(settings.loopMm, settings.gapMm);
  return Mending(drawing, own, settings.gapMm, LongSpikes::BecomeLines, stop).run();
}

Mended mendedInRounds(const Drawing& drawing, const MendSettings& settings, double longestSpikeMm,
                      const std::stop_token& stop) {
  MendSettings own = settings;
  own.bowTies = BowTieRule::Leave;
  return Mending(drawing, own, longestSpikeMm, LongSpikes::Stay, stop).inRounds();
}

}  // namespace rim::mend
