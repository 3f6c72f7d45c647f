#pragma once

#include <QString>
#include <vector>

#include "app/repair_preview.h"
#include "core/job/job.h"

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
};

/// All offers for the outlines of a job as they are now: what can be trued up within a distance (mm), corners that are
/// rounded or cut off by less than twice that, and a symmetry that the drawing nearly has. Throws Cancelled.
std::vector<Offer> offersFor(const job::Job& job, double withinMm, const std::stop_token& stop);

}  // namespace rim::app
