#include "core/colour/decisions.h"

#include <algorithm>
#include <array>
#include <opencv2/imgproc.hpp>

#include "core/colour/connected_components.h"
#include "core/colour/palette.h"
#include "core/colour/reduce.h"
#include "core/error.h"
#include "core/overloaded.h"

namespace rim::colour {
namespace {

class Decider {
 public:
  Decider(InkMap map, const picture::Picture& picture)
      : map_(std::move(map)), picture_(picture), labels_(map_.labels->clone()) {}

  void take(const InkDecision& decision) {
    std::visit(Overloaded{[this](const MergeInks& d) { merge(d); }, [this](const SweepInks& d) { sweep(d); },
                          [this](const SplitInk& d) { split(d); },
                          [this](const SetInkRole& d) {
                            if (has(d.ink)) map_.inks[d.ink].role = d.role;
                          },
                          [this](const RecolourInk& d) {
                            if (has(d.ink)) map_.inks[d.ink].colour = d.colour;
                          },
                          [this](const RenameInk& d) {
                            if (has(d.ink)) map_.inks[d.ink].name = d.name;
                          }},
               decision);
  }

  InkMap result() {
    map_.labels = std::make_shared<const cv::Mat>(labels_);
    return std::move(map_);
  }

 private:
  bool has(std::size_t ink) const { return ink < map_.inks.size(); }

  void merge(const MergeInks& d) {
    if (has(d.from) && has(d.into) && d.from != d.into)
      labels_.setTo(static_cast<int>(d.into), labels_ == static_cast<int>(d.from));
  }

  cv::Mat underStroke(const SweepInks& d) const {
    cv::Mat under(labels_.size(), CV_8U, cv::Scalar(0));
    const int thickness = 2 * std::max(0, d.radiusPx) + 1;
    for (std::size_t i = 0; i < d.way.size(); ++i) {
      const auto& from = d.way[i > 0 ? i - 1 : 0];
      cv::line(under, {from.x, from.y}, {d.way[i].x, d.way[i].y}, cv::Scalar(255), thickness);
    }
    return under;
  }

  void sweep(const SweepInks& d) {
    const cv::Mat under = underStroke(d);
    std::array<int, 256> pixels{};
    for (int y = 0; y < labels_.rows; ++y) {
      for (int x = 0; x < labels_.cols; ++x) {
        if (under.at<std::uint8_t>(y, x) != 0) ++pixels[labels_.at<std::uint8_t>(y, x)];
      }
    }
    const auto most = std::max_element(pixels.begin(), pixels.end());
    if (*most == 0) return;
    const auto into = static_cast<int>(most - pixels.begin());
    std::vector<bool> isSwept(map_.inks.size(), false);
    for (std::size_t ink = 0; ink < isSwept.size(); ++ink) isSwept[ink] = pixels[ink] != 0;
    if (d.connected) {
      giveTouched(under, isSwept, into);
      return;
    }
    for (int ink = 0; ink < static_cast<int>(isSwept.size()); ++ink) {
      if (ink != into && isSwept[static_cast<std::size_t>(ink)]) labels_.setTo(into, labels_ == ink);
    }
  }

  /// Gives the parts of the swept inks that the stroke touches to the ink.
  void giveTouched(const cv::Mat& under, const std::vector<bool>& isSwept, int into) {
    const ConnectedComponents all = connectedComponents(labels_);
    std::vector<bool> isTouched(all.parts.size(), false);
    for (const LabelRun& run : all.runs) {
      if (!isSwept[all.parts[run.part].label]) continue;
      const auto* row = under.ptr<std::uint8_t>(run.y);
      if (std::any_of(row + run.begin, row + run.end, [](std::uint8_t hit) { return hit != 0; }))
        isTouched[run.part] = true;
    }
    for (const LabelRun& run : all.runs) {
      if (isTouched[run.part]) paint(run, static_cast<std::uint8_t>(into), labels_);
    }
  }

  void split(const SplitInk& d) {
    if (!has(d.ink) || map_.inks.size() >= kMostInks) return;
    const cv::Mat own = labels_ == static_cast<int>(d.ink);
    if (cv::countNonZero(own) == 0) return;
    if (lab_.empty()) lab_ = labPicture(*picture_.bgr);
    // Pixels at borders are mixtures with other inks.
    cv::Mat inner;
    cv::erode(own, inner, cv::Mat::ones(3, 3, CV_8U));
    const auto [larger, smaller] = partedColours(lab_, cv::countNonZero(inner) > 0 ? inner : own);
    const auto number = static_cast<std::uint8_t>(map_.inks.size());
    for (int y = 0; y < labels_.rows; ++y) {
      for (int x = 0; x < labels_.cols; ++x) {
        if (own.at<std::uint8_t>(y, x) == 0) continue;
        const Lab colour = labOf(lab_.at<cv::Vec3f>(y, x));
        if (squareBetween(colour, smaller) < squareBetween(colour, larger)) labels_.at<std::uint8_t>(y, x) = number;
      }
    }
    map_.inks[d.ink].colour = rgbFrom(larger);
    map_.inks.push_back({rgbFrom(smaller), {}, map_.inks[d.ink].role});
  }

  InkMap map_;
  const picture::Picture& picture_;
  cv::Mat labels_;
  cv::Mat lab_;
};

}  // namespace

InkStep stepFor(InkDecision what) { return {std::move(what), true}; }

InkMap decided(InkMap map, const picture::Picture& picture, const std::vector<InkStep>& steps,
               const std::stop_token& stop) {
  Decider decider(std::move(map), picture);
  for (const InkStep& step : steps) {
    if (stop.stop_requested()) throw Cancelled();
    if (step.on) decider.take(step.what);
  }
  return decider.result();
}

InkMap dissolved(const InkMap& map) {
  cv::Mat marked(map.labels->size(), CV_8U, cv::Scalar(0));
  for (std::size_t i = 0; i < map.inks.size(); ++i) {
    if (map.inks[i].role == InkRole::Dissolve) marked |= *map.labels == static_cast<int>(i);
  }
  InkMap result = map;
  result.labels = std::make_shared<const cv::Mat>(filledFromAround(*map.labels, marked));
  return result;
}

}  // namespace rim::colour
