#pragma once

#include <array>
#include <cstdint>
#include <opencv2/core.hpp>
#include <stop_token>
#include <vector>

namespace rim::colour {

/// Pixels side by side in a row that have the same label: the columns from `begin` to before `end`.
struct LabelRun {
  int y = 0;
  int begin = 0;
  int end = 0;
  std::size_t part = 0;  ///< the index of the part that it belongs to

  std::size_t pixels() const { return static_cast<std::size_t>(end - begin); }
};

/// A connected component of a label map: an area of one label that hangs together by the sides of its pixels (it has
/// four neighbours).
struct Component {
  std::uint8_t label = 0;
  std::size_t pixels = 0;
};

/// A label map as its connected components.
struct ConnectedComponents {
  std::vector<Component> parts;  ///< in the order of their first pixels, row by row
  std::vector<LabelRun> runs;    ///< row by row, all of the picture
};

/// The first column after `begin`, at most `columns`, where a row's label differs from that at `begin`.
int endOfRun(const std::uint8_t* row, int begin, int columns);

/// The connected components of a label map `labels` (CV_8UC1, of any size): runs of rows that are joined where they lie
/// side by side (A. Rosenfeld and J. L. Pfaltz, "Sequential operations in digital picture processing", Journal of the
/// ACM 13 (1966), 471-494). Takes about 40 bytes a run. Throws Cancelled.
ConnectedComponents connectedComponents(const cv::Mat& labels, const std::stop_token& stop = {});

/// The runs of the parts with at most `mostPixels` pixels, part by part in the order of the parts.
std::vector<std::vector<LabelRun>> runsOfSmallComponents(const ConnectedComponents& all, std::size_t mostPixels);

/// Gives the run's pixels of a picture (CV_8UC1, as large as that of the labels) the value.
void paint(const LabelRun& run, std::uint8_t value, cv::Mat& picture);

/// Numbers by label.
using LabelCounts = std::array<double, 256>;

/// Counts the labels of a row from column `begin` to before `end`, on top of what is counted already.
void addLabels(const std::uint8_t* row, int begin, int end, LabelCounts& counts);

/// How many sides of its pixels a part, given by all its runs, has in common with pixels of each other label.
LabelCounts commonSides(const std::vector<LabelRun>& runs, const cv::Mat& labels);

}  // namespace rim::colour
