#include "core/mend/find/known_outlines.h"

#include <algorithm>

#include "core/geometry/nesting.h"
#include "core/mend/find/neighbours.h"

namespace rim::mend {
namespace {

std::vector<OutlineId> idsOf(const Drawing& drawing, const std::vector<std::size_t>& places) {
  std::vector<OutlineId> ids;
  ids.reserve(places.size());
  for (const std::size_t i : places) ids.push_back(drawing.outlines[i].id);
  return ids;
}

std::optional<KnownStroke> strokeIn(const Drawing& drawing, Surroundings& round, std::size_t inner, double widestMm) {
  std::optional<StrokePair> pair = strokePairOf(drawing, round, inner, widestMm);
  if (!pair) return {};
  return KnownStroke{drawing.outlines[pair->outer].id, pair->widthMm, std::move(pair->unlike)};
}

std::vector<Box> boxesOf(const Drawing& drawing) {
  std::vector<Box> boxes;
  boxes.reserve(drawing.outlines.size());
  for (const Outline& outline : drawing.outlines) boxes.push_back(outline.box());
  return boxes;
}

/// Whether nothing that a finding hangs on differs.
bool isSame(const Outline& a, const Outline& b) {
  return a.sharesPath(b) && a.layer == b.layer && a.stroke == b.stroke;
}

/// Works out what is to be known after a change. Faults hang on outlines up to two steps of touching away from the two
/// that they are about, and those of ends on the lines that are paired with them, whatever changed among these.
class Update {
 public:
  Update(const Drawing& drawing, const OutlinePlaces& places, const MendSettings& settings,
         const Inspected::State& before)
      : drawing_(drawing), places_(places), settings_(settings), before_(before), size_(drawing.outlines.size()) {}

  std::optional<KnownAgain> run(const std::stop_token& stop) {
    if (before_.places.size() != before_.all.size() || places_.size() != size_ ||
        before_.layers != drawing_.layers.size())
      return {};
    if (!(before_.settings == settings_) || !findChanges()) return {};
    findAffected();
    const auto inspect = static_cast<std::size_t>(std::count(inspected_.begin(), inspected_.end(), true));
    constexpr std::size_t kSmall = 64;  // so few are inspected at once
    if (inspect > std::max(kSmall, size_ / 2)) return {};
    takeFaults(stop);
    takeStrokes();
    KnownAgain result{{}, inspect};
    for (std::size_t i = 0; i < size_; ++i)
      result.all.push_back(fresh_[i] ? std::shared_ptr<const KnownOutline>(fresh_[i]) : former(i));
    return result;
  }

 private:
  static constexpr std::size_t kNone = static_cast<std::size_t>(-1);

  const std::shared_ptr<const KnownOutline>& former(std::size_t i) const { return before_.all[formerPlace_[i]]; }
  bool wasThere(std::size_t i) const { return formerPlace_[i] != kNone; }
  std::optional<std::size_t> placeNow(OutlineId id) const {
    const auto at = places_.find(id);
    return at == places_.end() ? std::nullopt : std::optional(at->second);
  }

  /// Which outlines are new or changed, which ones are gone. False: the others stand in another order.
  bool findChanges() {
    formerPlace_.assign(size_, kNone);
    changed_.assign(size_, false);
    std::size_t last = 0;
    for (std::size_t i = 0; i < size_; ++i) {
      const auto was = before_.places.find(drawing_.outlines[i].id);
      if (was != before_.places.end()) formerPlace_[i] = was->second;
      changed_[i] = !wasThere(i) || !isSame(former(i)->outline, drawing_.outlines[i]);
      if (!wasThere(i)) continue;
      if (formerPlace_[i] < last) return false;
      last = formerPlace_[i];
    }
    for (std::size_t f = 0; f < before_.all.size(); ++f) {
      if (!placeNow(before_.all[f]->outline.id)) gone_.push_back(f);
    }
    return true;
  }

  void visitFormer(const std::vector<OutlineId>& ids, const std::function<void(std::size_t)>& visit) const {
    for (const OutlineId id : ids) {
      if (const auto now = placeNow(id)) visit(*now);
    }
  }

  /// The neighbours that an outline had, and those that it has got.
  void visitTouching(std::size_t i, const std::function<void(std::size_t)>& visit) const {
    if (wasThere(i)) visitFormer(former(i)->touching, visit);
    for (const std::size_t other : got_[i].touching) visit(other);
  }
  void visitEnding(std::size_t i, const std::function<void(std::size_t)>& visit) const {
    if (wasThere(i)) visitFormer(former(i)->ending, visit);
    for (const std::size_t other : got_[i].ending) visit(other);
  }

  /// The neighbours of what changed as it is now, in both directions.
  void findNewNeighbours() {
    got_.assign(size_, {});
    for (std::size_t i = 0; i < size_; ++i) {
      if (!changed_[i]) continue;
      const Neighbours own = neighboursOf(drawing_, i, settings_);
      for (const std::size_t other : own.touching) {
        got_[i].touching.push_back(other);
        if (!changed_[other]) got_[other].touching.push_back(i);
      }
      for (const std::size_t other : own.ending) {
        got_[i].ending.push_back(other);
        if (!changed_[other]) got_[other].ending.push_back(i);
      }
    }
  }

  /// The outlines up to `steps` of touching away from some, these among them.
  std::vector<bool> around(std::vector<std::size_t> from, int steps) const {
    std::vector<bool> in(size_, false);
    for (const std::size_t i : from) in[i] = true;
    for (; steps > 0; --steps) {
      std::vector<std::size_t> next;
      for (const std::size_t i : from) {
        visitTouching(i, [&](std::size_t other) {
          if (in[other]) return;
          in[other] = true;
          next.push_back(other);
        });
      }
      from = std::move(next);
    }
    return in;
  }

  static std::vector<std::size_t> thoseIn(const std::vector<bool>& in) {
    std::vector<std::size_t> list;
    for (std::size_t i = 0; i < in.size(); ++i) {
      if (in[i]) list.push_back(i);
    }
    return list;
  }

  void findAffected() {
    findNewNeighbours();
    // What is gone affects what it touched, as if that had changed.
    std::vector<bool> seeds = changed_;
    std::vector<std::size_t> ends;
    for (const std::size_t f : gone_) {
      visitFormer(before_.all[f]->touching, [&seeds](std::size_t i) { seeds[i] = true; });
      visitFormer(before_.all[f]->ending, [&ends](std::size_t i) { ends.push_back(i); });
    }
    constexpr int kSteps = 2;
    affected_ = around(thoseIn(seeds), kSteps);
    for (const std::size_t i : thoseIn(affected_)) ends.push_back(i);
    // All lines whose ends are paired with theirs, whichever of these are.
    while (!ends.empty()) {
      const std::size_t i = ends.back();
      ends.pop_back();
      affected_[i] = true;
      visitEnding(i, [&](std::size_t other) {
        if (!affected_[other]) ends.push_back(other);
        affected_[other] = true;
      });
    }
    inspected_ = around(thoseIn(affected_), kSteps + 1);
  }

  bool isAffected(OutlineId id) const {
    const auto now = placeNow(id);
    return !now || affected_[*now];
  }

  /// What is known of an outline whose neighbourhood was inspected, without what is found anew.
  KnownOutline keptOf(std::size_t i) const {
    KnownOutline known;
    if (!changed_[i]) known = *former(i);
    known.outline = drawing_.outlines[i];
    if (changed_[i]) known.extent = {known.outline.box(), pathLength(known.outline.path())};
    if (affected_[i]) known.faults.clear();
    if (affected_[i]) known.loose.clear();
    std::erase_if(known.faults, [this](const Finding& f) { return isAffected(f.other); });
    const auto isStale = [this](OutlineId id) {
      const auto now = placeNow(id);
      return !now || changed_[*now];
    };
    std::erase_if(known.touching, isStale);
    std::erase_if(known.ending, isStale);
    for (const OutlineId id : idsOf(drawing_, got_[i].touching)) known.touching.push_back(id);
    for (const OutlineId id : idsOf(drawing_, got_[i].ending)) known.ending.push_back(id);
    return known;
  }

  void takeFaults(const std::stop_token& stop) {
    fresh_.assign(size_, nullptr);
    const std::vector<std::size_t> which = thoseIn(inspected_);
    Drawing part = emptyLike(drawing_);
    for (const std::size_t i : which) {
      part.outlines.push_back(drawing_.outlines[i]);
      fresh_[i] = std::make_shared<KnownOutline>(keptOf(i));
    }
    LocalFaults found = localFaults(part, settings_, stop);
    for (LocalFault& f : found.faults) {
      if (affected_[which[f.outline]] || affected_[which[f.other]])
        fresh_[which[f.outline]]->faults.push_back(std::move(f.finding));
    }
    for (const LooseEnd& loose : found.loose) {
      const std::size_t i = which[loose.end.path];
      if (affected_[i]) fresh_[i]->loose.push_back({loose.end.atStart, loose.isFault});
    }
  }

  /// The edges of strokes hang on what lies round them: on all that changed round an outline.
  void takeStrokes() {
    std::vector<Box> boxes;
    for (std::size_t i = 0; i < size_; ++i) {
      if (!changed_[i]) continue;
      boxes.push_back(drawing_.outlines[i].box());
      if (wasThere(i)) boxes.push_back(former(i)->extent.box);
    }
    for (const std::size_t f : gone_) boxes.push_back(before_.all[f]->extent.box);
    const Paths paths = pathsOf(drawing_);
    std::optional<Surroundings> round;
    for (std::size_t i = 0; i < size_; ++i) {
      const Box& own = drawing_.outlines[i].box();
      const bool stale = changed_[i] || std::any_of(boxes.begin(), boxes.end(), [&own](const Box& box) {
                           return box.contains(own.low) && box.contains(own.high);
                         });
      if (!stale) continue;
      if (!round) round.emplace(paths, boxesOf(drawing_));
      std::optional<KnownStroke> stroke = strokeIn(drawing_, *round, i, settings_.strokeMm);
      if (!fresh_[i] && !stroke && !former(i)->stroke) continue;
      if (!fresh_[i]) fresh_[i] = std::make_shared<KnownOutline>(*former(i));
      fresh_[i]->stroke = std::move(stroke);
    }
  }

  const Drawing& drawing_;
  const OutlinePlaces& places_;
  const MendSettings& settings_;
  const Inspected::State& before_;
  std::size_t size_;
  std::vector<std::size_t> formerPlace_;
  std::vector<bool> changed_;
  std::vector<std::size_t> gone_;  ///< in the former state
  std::vector<Neighbours> got_;    ///< new ones: of what changed all
  std::vector<bool> affected_;     ///< whose faults are to be found anew
  std::vector<bool> inspected_;    ///< these and what they hang on
  std::vector<std::shared_ptr<KnownOutline>> fresh_;
};

}  // namespace

KnownOutlines knownAnew(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  LocalFaults found = localFaults(drawing, settings, stop);
  const std::vector<Neighbours> neighbours = neighboursOf(drawing, settings, stop);
  const Paths paths = pathsOf(drawing);
  Surroundings round(paths, boxesOf(drawing));
  std::vector<std::shared_ptr<KnownOutline>> all;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    const Outline& outline = drawing.outlines[i];
    all.push_back(std::make_shared<KnownOutline>(KnownOutline{outline,
                                                              {outline.box(), pathLength(paths[i])},
                                                              idsOf(drawing, neighbours[i].touching),
                                                              idsOf(drawing, neighbours[i].ending),
                                                              {},
                                                              {},
                                                              strokeIn(drawing, round, i, settings.strokeMm)}));
  }
  for (LocalFault& f : found.faults) all[f.outline]->faults.push_back(std::move(f.finding));
  for (const LooseEnd& loose : found.loose) all[loose.end.path]->loose.push_back({loose.end.atStart, loose.isFault});
  return {all.begin(), all.end()};
}

std::optional<KnownAgain> knownAgain(const Drawing& drawing, const OutlinePlaces& places, const MendSettings& settings,
                                     const Inspected::State& before, const std::stop_token& stop) {
  return Update(drawing, places, settings, before).run(stop);
}

}  // namespace rim::mend
