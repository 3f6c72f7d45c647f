#pragma once

#include <vector>

#include "core/colour/inks.h"
#include "core/geometry/point.h"
#include "core/trace/inks/cracks.h"

namespace rim::trace::inks {

/// Where the border of a chain of pixel sides runs, in upright pixels, one point for every side that lies
/// across it; where none does for more than 1.6 px, as round a corner, a rougher one for every side there.
///
/// The pixels beside a border between two inks are mixtures of them: along each row or column that crosses it
/// more squarely the colours are laid on the way from the one ink to the other, and the edge is put where as much is
/// covered as they say (trace/contour/edge_localisation.h). Beyond pixels of other inks nothing is looked at. On the
/// picture's edge points stay on it.
std::vector<Point> edgesAlong(const CrackChain& chain, const cv::Mat& bgr, const colour::InkMap& map);

}  // namespace rim::trace::inks
