#pragma once

#include <optional>
#include <stop_token>

#include "core/colour/inks.h"
#include "core/picture/picture.h"

namespace rim::colour {

/// The picture in few inks, the largest first; the one that surrounds it is the background.
///
/// `count` 2..kMostInks, the background counted; none: as many as are clearly apart
/// (colour/palette.h). Deterministic. Pixels of even areas get the ink that looks most like them.
/// Others, at borders, are taken for a mixture of two inks and go to the one that covers more of
/// them: of the pairs with an ink beside them the pair whose mixtures come nearest (the mixed pixel
/// model). So an edge between black and white does not become a grey hair when there is a grey
/// ink elsewhere. Specks that noise leaves, and crumbs of up to 12 px that touch two other inks,
/// go to what surrounds them; noise is calmed beforehand. Throws Cancelled when `stop` is requested.
InkMap reduced(const picture::Picture& picture, std::optional<int> count, const std::stop_token& stop = {});

/// Whether a picture is flat artwork in colours, not black on white and no photograph: most of it is even, and some of
/// that is colourful. Such pictures are begun with several inks.
bool wantsSeveralInks(const picture::Picture& picture);

/// The labels with the marked pixels (CV_8UC1) given to the nearest others.
cv::Mat filledFromAround(const cv::Mat& labels, const cv::Mat& marked);

/// The labels with parts of less than `areaPx2` given to what surrounds them. Throws Cancelled.
cv::Mat withoutSpecks(const cv::Mat& labels, double areaPx2, const std::stop_token& stop = {});

}  // namespace rim::colour
