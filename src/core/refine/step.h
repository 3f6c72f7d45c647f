#pragma once

#include <memory>
#include <set>
#include <stop_token>
#include <string>
#include <variant>
#include <vector>

#include "core/drawing/mark.h"
#include "core/geometry/curve_form.h"
#include "core/mend/find/settings.h"
#include "core/refine/combine/areas.h"
#include "core/refine/combine/offset.h"
#include "core/refine/edit/place.h"
#include "core/refine/propose/proposal.h"
#include "core/refine/propose/symmetry.h"

/// What the Refine step can do to a drawing, as values. Lengths in mm.
namespace rim::refine {

inline constexpr double kWithinMm = 0.3;  ///< the most that a point moves by what is made exact, unless told otherwise

struct TrueUp {
  std::set<TrueUpKind> kinds;
  double withinMm = kWithinMm;
  friend bool operator==(const TrueUp&, const TrueUp&) = default;
};
struct Symmetrize {
  SymmetryWish wish = SymmetryWish::Auto;
  SymmetryFrom from = SymmetryFrom::Best;
  double withinMm = kWithinMm;
  friend bool operator==(const Symmetrize&, const Symmetrize&) = default;
};
struct Sharpen {
  double missingMm = 0.5;
  friend bool operator==(const Sharpen&, const Sharpen&) = default;
};
struct FilletCorners {
  double radiusMm = 1;
  friend bool operator==(const FilletCorners&, const FilletCorners&) = default;
};
struct Simplify {
  double withinMm = 0.05;
  CurveForm form = CurveForm::Arcs;
  friend bool operator==(const Simplify&, const Simplify&) = default;
};
struct UniteAll {
  friend bool operator==(const UniteAll&, const UniteAll&) = default;
};
struct CombineWith {
  AreaRule rule = AreaRule::Subtract;
  std::shared_ptr<const Drawing> other;
  std::string name;  ///< of the file that it was read from
  friend bool operator==(const CombineWith&, const CombineWith&) = default;
};
struct OffsetBy {
  double mm = 1;
  Joins joins = Joins::Round;
  friend bool operator==(const OffsetBy&, const OffsetBy&) = default;
};
struct AddRing {
  double gapMm = 3;
  double widthMm = 3;
  Joins joins = Joins::Round;
  friend bool operator==(const AddRing&, const AddRing&) = default;
};
struct ThickenLines {
  double mm = 2;  ///< 0: as wide as they were drawn
  Joins joins = Joins::Round;
  Tips tips = Tips::Round;
  friend bool operator==(const ThickenLines&, const ThickenLines&) = default;
};
/// Of drawn strokes one line stays (DoubleRule::Outer, Inner or Centre).
struct StrokesTo {
  mend::DoubleRule keep = mend::DoubleRule::Centre;
  double widestMm = 3;
  friend bool operator==(const StrokesTo&, const StrokesTo&) = default;
};
struct Rotate {
  double degrees = 90;
  friend bool operator==(const Rotate&, const Rotate&) = default;
};
struct Reflect {
  bool leftRight = true;
  friend bool operator==(const Reflect&, const Reflect&) = default;
};
struct ScaleBy {
  double factor = 1;
  friend bool operator==(const ScaleBy&, const ScaleBy&) = default;
};
struct PlaceAt {
  Point at;
  Hold hold = Hold::LowerLeft;
  friend bool operator==(const PlaceAt&, const PlaceAt&) = default;
};
struct FitInto {
  double widthMm = 100;
  double heightMm = 100;
  friend bool operator==(const FitInto&, const FitInto&) = default;
};
struct Array {
  int columns = 2;
  int rows = 1;
  Point gapsMm;
  friend bool operator==(const Array&, const Array&) = default;
};
struct ArrayRound {
  int count = 6;
  Point centre;
  friend bool operator==(const ArrayRound&, const ArrayRound&) = default;
};
/// Outlines that a person took out by hand. Like those of Replace they are in the units of the outlines that are
/// refined (px of a picture, mm of a drawing that was read), so that they stay where they are whatever size is wished
/// for.
struct Remove {
  std::vector<OutlineMark> outlines;
  friend bool operator==(const Remove&, const Remove&) = default;
};
/// Outlines with the paths that were made of them by hand, or by a single proposal.
struct Replace {
  struct One {
    OutlineMark was;
    Path path;
    friend bool operator==(const One&, const One&) = default;
  };
  std::string kind;  ///< what was done: a kind of proposal, or "moved"
  std::vector<One> outlines;
  friend bool operator==(const Replace&, const Replace&) = default;
};

/// What was drawn by hand, one change after the other, in the units of the outlines that are refined.
struct ByHand {
  struct One {
    OutlineMark was;  ///< of no id: nothing was there, these are new
    /// What became of it: nothing, itself along another path, and parts besides. Shared, so that undo keeps each once.
    std::vector<std::shared_ptr<const Path>> paths;
    std::size_t layer = 0;  ///< of what is new
    friend bool operator==(const One& a, const One& b);
  };
  std::vector<One> changes;
  friend bool operator==(const ByHand&, const ByHand&) = default;
};

/// A layer that is called and coloured otherwise.
struct EditLayer {
  std::string name;
  Layer as;
  friend bool operator==(const EditLayer&, const EditLayer&) = default;
};
/// A layer that is left out of what is shown and written.
struct HideLayer {
  std::string name;
  friend bool operator==(const HideLayer&, const HideLayer&) = default;
};
/// Outlines that were put on a layer, which is made when there is none of that name.
struct PutOnLayer {
  std::vector<OutlineMark> outlines;
  Layer layer;
  friend bool operator==(const PutOnLayer&, const PutOnLayer&) = default;
};

/// A layer of which nothing is taken hold of by hand; it is shown and written as ever.
struct LockLayer {
  std::string name;
  friend bool operator==(const LockLayer&, const LockLayer&) = default;
};
/// A layer at another place among the others.
struct MoveLayer {
  std::string name;
  int place = 0;  ///< 0: the first
  friend bool operator==(const MoveLayer&, const MoveLayer&) = default;
};
/// Outlines that belong together from now on, or no more.
struct Group {
  std::vector<OutlineMark> outlines;
  bool together = true;
  friend bool operator==(const Group&, const Group&) = default;
};

using Step =
    std::variant<TrueUp, Symmetrize, Sharpen, FilletCorners, Simplify, UniteAll, CombineWith, OffsetBy, AddRing,
                 ThickenLines, StrokesTo, Rotate, Reflect, ScaleBy, PlaceAt, FitInto, Array, ArrayRound, Remove,
                 Replace, ByHand, EditLayer, HideLayer, PutOnLayer, LockLayer, MoveLayer, Group>;

/// The layers that steps hide, or lock, by name.
std::set<std::string> hiddenLayers(const std::vector<Step>& steps);
std::set<std::string> lockedLayers(const std::vector<Step>& steps);

/// The drawing (mm) with one line in the place of every stroke: of two edges that close on themselves the outer one,
/// the inner one or the line between; with the line between also the middles of strokes that were drawn as one outline
/// round their ends. Strokes wider than `widestMm` (> 0) stay. Throws Cancelled.
Drawing strokesTo(const Drawing& drawing, const StrokesTo& how, const std::stop_token& stop = {});

/// What became of an outline by hand; of no outline: what is new on a layer.
ByHand::One madeByHand(const OutlineMark& was, std::vector<Path> paths, std::size_t layer = 0);

/// The steps with one more thing done by hand: it joins the last step where that was done by hand, too, and one more
/// change of an outline takes the place of the change before.
std::vector<Step> withHandwork(std::vector<Step> steps, const std::vector<ByHand::One>& changes);

/// The steps without what was done by hand to these outlines (ByHand, Replace, Remove, PutOnLayer, Group), but with
/// what else was drawn by hand.
std::vector<Step> withoutHandworkOn(std::vector<Step> steps, const std::set<OutlineId>& outlines);

/// The word for a step, as on the command line: "true-up", "offset", …
std::string nameOf(const Step& step);

/// The drawing (mm) after one step, and what it changed; lengths of Remove and Replace are in units of `mmPerUnit`.
/// What was made by hand of an outline that is gone from the drawing stays as an outline of its own. Throws InputError
/// when it leaves nothing or makes too much, and Cancelled.
Refined done(const Drawing& drawing, const Step& step, const std::stop_token& stop = {}, double mmPerUnit = 1);

/// The same for all steps in order; what they changed, added up. Throws InputError that names the step.
Refined done(const Drawing& drawing, const std::vector<Step>& steps, const std::stop_token& stop = {},
             double mmPerUnit = 1);

}  // namespace rim::refine
