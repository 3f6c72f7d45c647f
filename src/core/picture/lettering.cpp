#include "core/picture/lettering.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

namespace rim::picture {
namespace {

struct Letter {
  cv::Rect box;
  int area = 0;
};

std::vector<Letter> lettersOf(const cv::Mat& ink, double belowPx) {
  constexpr int kLeastHeight = 3;
  constexpr double kWidest = 14;  // heights: letters that run together
  cv::Mat labels;
  cv::Mat stats;
  cv::Mat middles;
  const int parts = cv::connectedComponentsWithStats(ink, labels, stats, middles, 8);
  std::vector<Letter> letters;
  for (int i = 1; i < parts; ++i) {
    const cv::Rect box(stats.at<int>(i, cv::CC_STAT_LEFT), stats.at<int>(i, cv::CC_STAT_TOP),
                       stats.at<int>(i, cv::CC_STAT_WIDTH), stats.at<int>(i, cv::CC_STAT_HEIGHT));
    if (box.height < kLeastHeight || box.height >= belowPx || box.width > kWidest * box.height) continue;
    letters.push_back({box, stats.at<int>(i, cv::CC_STAT_AREA)});
  }
  std::sort(letters.begin(), letters.end(), [](const Letter& a, const Letter& b) { return a.box.x < b.box.x; });
  return letters;
}

/// How many letters a part is: small ones run together.
double lettersIn(const Letter& letter) {
  constexpr double kWidth = 0.85;  // heights, the gap counted
  return std::max(1.0, letter.box.width / (kWidth * letter.box.height));
}

/// Whether b is the next letter of a's row.
bool follows(const Letter& a, const Letter& b) {
  constexpr double kLike = 0.35;
  const double height = std::max(a.box.height, b.box.height);
  const int foot = a.box.y + a.box.height - b.box.y - b.box.height;
  const int apart = b.box.x - a.box.x - a.box.width;
  return std::abs(a.box.height - b.box.height) <= kLike * height && std::abs(foot) <= kLike * height && apart >= -1 &&
         apart <= height;
}

}  // namespace

std::optional<Lettering> smallLettering(const cv::Mat& ink, double belowPx) {
  constexpr double kLeastLetters = 5;
  constexpr double kFullest = 0.72;  // of its box: more is a bar or a dot
  constexpr std::size_t kMostParts = 20'000;
  constexpr double kBold = 1.0 / 6;
  const std::vector<Letter> letters = lettersOf(ink, belowPx);
  if (letters.size() > kMostParts) return std::nullopt;
  std::vector<bool> taken(letters.size(), false);
  std::optional<Lettering> found;
  int all = 0;
  for (std::size_t first = 0; first < letters.size(); ++first) {
    if (taken[first]) continue;
    std::vector<std::size_t> row{first};
    for (std::size_t i = first + 1; i < letters.size(); ++i) {
      if (letters[i].box.x > letters[row.back()].box.br().x + letters[row.back()].box.height) break;
      if (!taken[i] && follows(letters[row.back()], letters[i])) row.push_back(i);
    }
    std::vector<int> heights;
    double count = 0;
    double area = 0;
    double boxes = 0;
    double rim = 0;
    for (const std::size_t i : row) {
      heights.push_back(letters[i].box.height);
      count += lettersIn(letters[i]);
      area += letters[i].area;
      boxes += letters[i].box.area();
      rim += letters[i].box.height + letters[i].box.width;
    }
    if (count < kLeastLetters || area > kFullest * boxes) continue;
    for (const std::size_t i : row) taken[i] = true;
    all += static_cast<int>(count);
    const auto middle = heights.begin() + static_cast<std::ptrdiff_t>(heights.size() / 2);
    std::nth_element(heights.begin(), middle, heights.end());
    if (found && found->heightPx <= *middle) continue;
    // The length of a letter's strokes is about that of half its box's rim and a little more.
    found = Lettering{static_cast<double>(*middle), 0, area / rim > kBold * *middle};
  }
  if (found) found->letters = all;
  return found;
}

}  // namespace rim::picture
