#include "core/refine/step.h"

#include <algorithm>
#include <array>

#include "core/error.h"
#include "core/mend/repair/simplify.h"
#include "core/mend/repair/strokes.h"
#include "core/mend/repair/tidy.h"
#include "core/refine/edit/corners.h"
#include "core/refine/edit/groups.h"
#include "core/refine/edit/layers.h"
#include "core/refine/edit/mostly_under.h"
#include "core/refine/propose/exact_shapes.h"

namespace rim::refine {
namespace {

constexpr std::array<const char*, std::variant_size_v<Step>> kNames{
    "true-up",    "symmetry",   "sharpen",      "fillet",      "simplify",   "unite",   "combine",
    "offset",     "ring",       "thicken",      "strokes",     "rotate",     "mirror",  "scale",
    "place",      "fit",        "array",        "array-round", "remove",     "replace", "by-hand",
    "edit-layer", "hide-layer", "put-on-layer", "lock-layer",  "move-layer", "group"};

/// One function for each step.
class Doing {
 public:
  Doing(const Drawing& drawing, const std::stop_token& stop, double mmPerUnit)
      : drawing_(drawing), stop_(stop), k_(mmPerUnit) {}

  Refined operator()(const TrueUp& s) const { return truedUp(drawing_, s.kinds, s.withinMm, stop_); }
  Refined operator()(const Symmetrize& s) const { return symmetrized(drawing_, s.wish, s.from, s.withinMm, stop_); }
  Refined operator()(const Sharpen& s) const {
    return withCorners("sharpened", [&s](const Path& path) { return sharpened(path, s.missingMm); });
  }
  Refined operator()(const FilletCorners& s) const {
    return withCorners("filleted", [&s](const Path& path) { return filleted(path, s.radiusMm); });
  }
  Refined operator()(const Simplify& s) const {
    mend::MendSettings settings;
    settings.simplifyMm = s.withinMm;
    Refined refined{mend::withFewestNodes(drawing_, settings, stop_, s.form).drawing, {}};
    for (const Outline& outline : changedOutlines(drawing_, refined.drawing)) {
      const auto before = placeOf(drawing_, outline.id);
      if (!before) continue;
      const Apart apart = apartBy(drawing_.path(*before), outline.path());
      refined.changes.push_back({"simplified", outline.id, apart.at, apart.mm});
    }
    return refined;
  }
  Refined operator()(const UniteAll&) const { return {united(drawing_, stop_), {}}; }
  Refined operator()(const CombineWith& s) const {
    return {s.other ? combined(drawing_, *s.other, s.rule, stop_) : drawing_, {}};
  }
  Refined operator()(const OffsetBy& s) const { return {offset(drawing_, s.mm, s.joins, kToleranceMm, stop_), {}}; }
  Refined operator()(const AddRing& s) const {
    return {withRing(drawing_, s.gapMm, s.widthMm, s.joins, kToleranceMm, stop_), {}};
  }
  Refined operator()(const ThickenLines& s) const {
    return {thickened(drawing_, s.mm, s.joins, s.tips, kToleranceMm, stop_), {}};
  }
  Refined operator()(const StrokesTo& s) const { return {strokesTo(drawing_, s, stop_), {}}; }
  Refined operator()(const Rotate& s) const { return {rotated(drawing_, s.degrees), {}}; }
  Refined operator()(const Reflect& s) const { return {mirrored(drawing_, s.leftRight), {}}; }
  Refined operator()(const ScaleBy& s) const { return {scaledBy(drawing_, s.factor), {}}; }
  Refined operator()(const PlaceAt& s) const { return {placed(drawing_, s.at, s.hold), {}}; }
  Refined operator()(const FitInto& s) const { return {fitted(drawing_, s.widthMm, s.heightMm), {}}; }
  Refined operator()(const Array& s) const { return {inRows(drawing_, s.columns, s.rows, s.gapsMm), {}}; }
  Refined operator()(const ArrayRound& s) const { return {onCircle(drawing_, s.count, s.centre), {}}; }
  Refined operator()(const Remove& s) const {
    return toThose(s.outlines, [this](const auto& ids) { return mend::withoutOutlines(drawing_, ids); });
  }
  Refined operator()(const Replace& s) const {
    Refined refined{drawing_, {}};
    for (const Replace::One& one : s.outlines) {
      const Path path = rim::scaled(one.path, k_);
      become(refined, s.kind, placeFor(refined, one.was, {path}), {path});
    }
    return refined;
  }
  Refined operator()(const EditLayer& s) const { return {withLayerAs(drawing_, s.name, s.as), {}}; }
  Refined operator()(const HideLayer& s) const { return {withoutLayers(drawing_, {s.name}), {}}; }
  Refined operator()(const PutOnLayer& s) const {
    return toThose(s.outlines, [&](const auto& ids) { return onLayer(drawing_, ids, s.layer); });
  }
  Refined operator()(const LockLayer&) const { return {drawing_, {}}; }
  Refined operator()(const MoveLayer& s) const {
    return {withLayerAt(drawing_, s.name, static_cast<std::size_t>(std::max(0, s.place))), {}};
  }
  Refined operator()(const Group& s) const {
    return toThose(s.outlines,
                   [&](const auto& ids) { return s.together ? grouped(drawing_, ids) : ungrouped(drawing_, ids); });
  }
  Refined operator()(const ByHand& s) const {
    Refined refined{drawing_, {}};
    for (const ByHand::One& one : s.changes) {
      std::vector<Path> paths;
      for (const auto& path : one.paths) paths.push_back(rim::scaled(*path, k_));
      const bool isNew = one.was.id == OutlineId::None;
      const auto place = isNew ? std::nullopt : placeFor(refined, one.was, paths);
      become(refined, "by-hand", place, std::move(paths), one.layer);
    }
    return refined;
  }

 private:
  /// What comes of the outlines that were chosen by hand.
  template <class Change>
  Refined toThose(const std::vector<OutlineMark>& marks, const Change& change) const {
    Refined refined{drawing_, {}};
    std::set<OutlineId> ids;
    for (const OutlineMark& mark : marks) {
      auto place = placeOf(drawing_, scaled(mark, k_));
      if (!place) place = whatCameOf(refined, mark);
      if (place) ids.insert(drawing_.outlines[*place].id);
    }
    refined.drawing = change(ids);
    return refined;
  }

  /// Where that stands which covers nearly what the outline did. Remembers that it is no more what it was, or that none
  /// does though something is there.
  std::optional<std::size_t> whatCameOf(Refined& refined, const OutlineMark& was) const {
    const OutlineMark mark = scaled(was, k_);
    const auto now = mostlyUnder(refined.drawing, mark);
    if (now) refined.kept.push_back(was);
    if (!now && isAnythingAt(refined.drawing, mark)) refined.lost.push_back(was);
    return now;
  }

  /// Where the outline stands that other paths were made of: itself, or what lies there now, or what covers nearly the
  /// area of the first. Remembers those that are no more what they were.
  std::optional<std::size_t> placeFor(Refined& refined, const OutlineMark& was, const std::vector<Path>& paths) const {
    if (const auto same = placeOf(refined.drawing, was.id)) return same;
    const auto alike = placeOf(refined.drawing, scaled(was, k_));
    if (!alike && paths.empty()) return whatCameOf(refined, was);
    refined.kept.push_back(was);
    return alike ? alike : mostlyUnder(refined.drawing, paths.front(), stop_);
  }

  /// The outline at a place along other paths: the first is still that one, the others stand behind it. With no path it
  /// goes; with no place all are new, on a layer.
  void become(Refined& refined, const std::string& kind, std::optional<std::size_t> place, std::vector<Path> paths,
              std::size_t layer = 0) const {
    Drawing& drawing = refined.drawing;
    if (!place) {
      for (Path& path : paths) add(drawing, std::move(path), layer < drawing.layers.size() ? layer : 0);
      return;
    }
    const auto at = drawing.outlines.begin() + static_cast<std::ptrdiff_t>(*place);
    const Outline was = *at;
    if (paths.empty()) {
      drawing.outlines.erase(at);
      return;
    }
    const Apart apart = apartBy(was.path(), paths.front());
    refined.changes.push_back({kind, was.id, apart.at, apart.mm});
    Drawing parts;
    addParts(parts, was, std::move(paths));
    *at = parts.outlines.front();
    drawing.outlines.insert(at + 1, parts.outlines.begin() + 1, parts.outlines.end());
  }

  static constexpr double kToleranceMm = 0.001;

  template <class Change>
  Refined withCorners(const std::string& kind, const Change& change) const {
    Refined refined{drawing_, {}};
    for (std::size_t i = 0; i < drawing_.outlines.size(); ++i) {
      if (stop_.stop_requested()) throw Cancelled();
      const ChangedPath changed = change(drawing_.path(i));
      if (changed.changes.empty()) continue;
      refined.drawing.setPath(i, changed.path);
      for (const CornerChange& c : changed.changes)
        refined.changes.push_back({kind, drawing_.outlines[i].id, c.at, c.movedMm});
    }
    return refined;
  }

  const Drawing& drawing_;
  const std::stop_token& stop_;
  double k_;
};

}  // namespace

bool operator==(const ByHand::One& a, const ByHand::One& b) {
  const auto same = [](const auto& one, const auto& other) { return one == other || *one == *other; };
  return a.was == b.was && a.layer == b.layer &&
         std::equal(a.paths.begin(), a.paths.end(), b.paths.begin(), b.paths.end(), same);
}

Drawing strokesTo(const Drawing& drawing, const StrokesTo& how, const std::stop_token& stop) {
  mend::MendSettings settings;
  settings.doubles = how.keep;
  settings.strokeWidthMm = how.widestMm;
  return mend::allStrokesToLines(drawing, settings, stop).drawing;
}

ByHand::One madeByHand(const OutlineMark& was, std::vector<Path> paths, std::size_t layer) {
  ByHand::One one{was, {}, layer};
  for (Path& path : paths) one.paths.push_back(std::make_shared<const Path>(std::move(path)));
  return one;
}

std::vector<Step> withHandwork(std::vector<Step> steps, const std::vector<ByHand::One>& changes) {
  if (steps.empty() || !std::holds_alternative<ByHand>(steps.back())) steps.push_back(ByHand{});
  auto& done = std::get<ByHand>(steps.back()).changes;
  for (const ByHand::One& change : changes) {
    const auto before = std::find_if(done.rbegin(), done.rend(), [&change](const ByHand::One& one) {
      return one.was.id != OutlineId::None && one.was.id == change.was.id;
    });
    if (before != done.rend() && before->paths.size() == 1) {
      before->paths = change.paths;
    } else {
      done.push_back(change);
    }
  }
  return steps;
}

namespace {

/// The names in all steps of one kind.
template <class Kind>
std::set<std::string> namesIn(const std::vector<Step>& steps) {
  std::set<std::string> names;
  for (const Step& step : steps) {
    if (const auto* own = std::get_if<Kind>(&step)) names.insert(own->name);
  }
  return names;
}

/// The outlines that a step is about which were chosen by hand; null: it is about none.
std::vector<OutlineMark>* chosenIn(Step& step) {
  if (auto* remove = std::get_if<Remove>(&step)) return &remove->outlines;
  if (auto* put = std::get_if<PutOnLayer>(&step)) return &put->outlines;
  if (auto* group = std::get_if<Group>(&step)) return &group->outlines;
  return nullptr;
}

}  // namespace

std::vector<Step> withoutHandworkOn(std::vector<Step> steps, const std::set<OutlineId>& outlines) {
  const auto emptied = [&outlines](auto& all, const auto& idOf) {
    std::erase_if(all, [&](const auto& one) { return idOf(one) != OutlineId::None && outlines.contains(idOf(one)); });
    return all.empty();
  };
  const auto idOfMark = [](const OutlineMark& mark) { return mark.id; };
  const auto idOfMade = [](const auto& one) { return one.was.id; };
  std::erase_if(steps, [&](Step& step) {
    if (auto* byHand = std::get_if<ByHand>(&step)) return emptied(byHand->changes, idOfMade);
    if (auto* replace = std::get_if<Replace>(&step)) return emptied(replace->outlines, idOfMade);
    auto* marks = chosenIn(step);
    return marks != nullptr && emptied(*marks, idOfMark);
  });
  return steps;
}

std::set<std::string> hiddenLayers(const std::vector<Step>& steps) { return namesIn<HideLayer>(steps); }
std::set<std::string> lockedLayers(const std::vector<Step>& steps) { return namesIn<LockLayer>(steps); }

std::string nameOf(const Step& step) { return kNames[step.index()]; }

Refined done(const Drawing& drawing, const Step& step, const std::stop_token& stop, double mmPerUnit) {
  Refined refined = std::visit(Doing(drawing, stop, mmPerUnit), step);
  if (refined.drawing.outlines.empty() && !drawing.outlines.empty())
    throw InputError("nothing is left after \"" + nameOf(step) + "\".");
  return refined;
}

Refined done(const Drawing& drawing, const std::vector<Step>& steps, const std::stop_token& stop, double mmPerUnit) {
  Refined all{drawing, {}};
  for (const Step& step : steps) append(all, done(all.drawing, step, stop, mmPerUnit));
  return all;
}

}  // namespace rim::refine
