#pragma once

#include <QString>
#include <optional>
#include <set>
#include <vector>

#include "app/repair_preview.h"
#include "core/job/job.h"
#include "core/refine/propose/shape_size.h"

namespace rim::app {

/// Something that is nearly so in a drawing, and what would make it exactly so.
struct Offer {
  QString group;           ///< what is nearly so: "Nearly circles"
  Point at;                ///< upright px, where most would move
  double movedMm = 0;      ///< the most that anything would move
  std::size_t places = 1;  ///< how many it is about, such as corners
  refine::Step one;        ///< does this alone
  refine::Step all;        ///< does all of its group
  RepairPreview preview;   ///< upright px

  /// The shape that is offered, where it has a size that can be typed.
  struct Shape {
    refine::TrueUpKind kind = refine::TrueUpKind::Circle;
    OutlineMark was;         ///< upright px
    Path path;               ///< mm
    refine::ShapeSize size;  ///< mm
  };
  std::optional<Shape> shape;
};

/// All that is offered for a drawing.
struct Offers {
  std::vector<Offer> list;
  std::vector<refine::Step> all;  ///< do everything that is listed
};

/// All offers for the outlines of a job as they are now: what can be trued up within a distance (mm), corners that are
/// rounded or cut off by less than twice that, and a symmetry that the drawing nearly has; with `only` for these
/// outlines alone, as if there were no others to be changed. Throws Cancelled.
Offers offersFor(const job::Job& job, double withinMm, const std::optional<std::set<OutlineId>>& only,
                 const std::stop_token& stop);

/// The shape that an offer is about in another size, as one step. Throws InputError.
refine::Step resized(const Offer::Shape& shape, const refine::ShapeSize& size, double pxPerMm);

/// All of the group of an offer as one step: those of nearly its size in the one that is given. Throws InputError.
refine::Step resizedAlike(const std::vector<Offer>& list, const Offer& offer, const refine::ShapeSize& size,
                          double pxPerMm);

}  // namespace rim::app
