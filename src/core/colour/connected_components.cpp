#include "core/colour/connected_components.h"

#include <algorithm>
#include <cstring>
#include <limits>

#include "core/disjoint_sets.h"
#include "core/error.h"

namespace rim::colour {
namespace {

/// Joins the runs of a row, from `row` on, with those of the row before it, from `before` on.
void joinRows(const cv::Mat& labels, const std::vector<LabelRun>& runs, std::size_t before, std::size_t row,
              DisjointSets& sets) {
  const auto labelOf = [&labels](const LabelRun& run) { return labels.at<std::uint8_t>(run.y, run.begin); };
  std::size_t above = before;
  std::size_t below = row;
  while (above < row && below < runs.size()) {
    const LabelRun& a = runs[above];
    const LabelRun& b = runs[below];
    if (a.begin < b.end && b.begin < a.end && labelOf(a) == labelOf(b)) sets.join(above, below);
    // A row's runs cover all of it, so the one that ends first has no more neighbours.
    if (a.end <= b.end) ++above;
    if (b.end <= a.end) ++below;
  }
}

}  // namespace

int endOfRun(const std::uint8_t* row, int begin, int columns) {
  constexpr int kWord = 8;
  int x = begin + 1;
  std::uint64_t same = 0;
  std::memset(&same, row[begin], kWord);
  // Most rows change their label seldom.
  for (; x + kWord <= columns; x += kWord) {
    std::uint64_t some = 0;
    std::memcpy(&some, row + x, kWord);
    if (some != same) break;
  }
  while (x < columns && row[x] == row[begin]) ++x;
  return x;
}

ConnectedComponents connectedComponents(const cv::Mat& labels, const std::stop_token& stop) {
  ConnectedComponents all;
  DisjointSets sets(0);
  std::size_t before = 0;
  for (int y = 0; y < labels.rows; ++y) {
    if (y % 256 == 0 && stop.stop_requested()) throw Cancelled();
    const auto* pixels = labels.ptr<std::uint8_t>(y);
    const std::size_t row = all.runs.size();
    for (int x = 0; x < labels.cols; x = all.runs.back().end) {
      all.runs.push_back({y, x, endOfRun(pixels, x, labels.cols), 0});
      sets.add();
    }
    joinRows(labels, all.runs, before, row, sets);
    before = row;
  }
  for (std::size_t i = 0; i < all.runs.size(); ++i) {
    LabelRun& run = all.runs[i];
    const std::size_t first = sets.of(i);
    if (first == i) all.parts.push_back({labels.at<std::uint8_t>(run.y, run.begin), 0});
    run.part = first == i ? all.parts.size() - 1 : all.runs[first].part;
    all.parts[run.part].pixels += run.pixels();
  }
  return all;
}

std::vector<std::vector<LabelRun>> runsOfSmallComponents(const ConnectedComponents& all, std::size_t mostPixels) {
  constexpr std::size_t kLarge = std::numeric_limits<std::size_t>::max();
  std::vector<std::vector<LabelRun>> small;
  std::vector<std::size_t> place(all.parts.size(), kLarge);
  for (const LabelRun& run : all.runs) {
    if (all.parts[run.part].pixels > mostPixels) continue;
    std::size_t& at = place[run.part];
    if (at == kLarge) {
      at = small.size();
      small.emplace_back();
    }
    small[at].push_back(run);
  }
  return small;
}

void paint(const LabelRun& run, std::uint8_t value, cv::Mat& picture) {
  auto* row = picture.ptr<std::uint8_t>(run.y);
  std::fill(row + run.begin, row + run.end, value);
}

void addLabels(const std::uint8_t* row, int begin, int end, LabelCounts& counts) {
  for (int x = begin; x < end;) {
    const int next = endOfRun(row, x, end);
    counts[row[x]] += next - x;
    x = next;
  }
}

LabelCounts commonSides(const std::vector<LabelRun>& runs, const cv::Mat& labels) {
  LabelCounts sides{};
  for (const LabelRun& run : runs) {
    const auto* row = labels.ptr<std::uint8_t>(run.y);
    if (run.begin > 0) sides[row[run.begin - 1]] += 1;
    if (run.end < labels.cols) sides[row[run.end]] += 1;
    for (const int y : {run.y - 1, run.y + 1}) {
      if (y >= 0 && y < labels.rows) addLabels(labels.ptr<std::uint8_t>(y), run.begin, run.end, sides);
    }
  }
  sides[labels.at<std::uint8_t>(runs.front().y, runs.front().begin)] = 0;
  return sides;
}

}  // namespace rim::colour
