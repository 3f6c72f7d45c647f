#include "core/picture/light.h"

#include <array>
#include <opencv2/imgproc.hpp>

namespace rim::picture {
namespace {

constexpr int kTerms = 10;
constexpr double kLightSidePx = 120;
constexpr float kPaper = 245;  // what paper becomes

/// The powers of x and y in the terms of a polynomial of third degree.
struct Term {
  std::size_t x, y;
};
constexpr std::array<Term, kTerms> kPowers{
    {{0, 0}, {1, 0}, {0, 1}, {2, 0}, {1, 1}, {0, 2}, {3, 0}, {2, 1}, {1, 2}, {0, 3}}};
constexpr std::size_t kDegree = 3;
using Powers = std::array<double, 2 * kDegree + 1>;

double placeOf(int i, int count) { return count > 1 ? 2.0 * i / (count - 1) - 1 : 0; }

/// One row of the field. Along a row it is a cubic in x alone.
void evaluateRow(const cv::Mat& coefficients, cv::Size size, int y, float* row) {
  constexpr float kDarkest = 8;
  const double* c = coefficients.ptr<double>();
  const double v = placeOf(y, size.height);
  const auto c0 = static_cast<float>(c[0] + v * (c[2] + v * (c[5] + v * c[9])));
  const auto c1 = static_cast<float>(c[1] + v * (c[4] + v * c[8]));
  const auto c2 = static_cast<float>(c[3] + v * c[7]);
  const auto c3 = static_cast<float>(c[6]);
  const float step = size.width > 1 ? 2.0F / static_cast<float>(size.width - 1) : 0;
  for (int x = 0; x < size.width; ++x) {
    const float u = size.width > 1 ? step * static_cast<float>(x) - 1 : 0;
    row[x] = std::max(kDarkest, c0 + u * (c1 + u * (c2 + u * c3)));
  }
}

cv::Mat evaluate(const cv::Mat& coefficients, cv::Size size) {
  cv::Mat field(size, CV_32FC1);
  for (int y = 0; y < size.height; ++y) evaluateRow(coefficients, size, y, field.ptr<float>(y));
  return field;
}

/// The brightest pixel of every block of a small picture: paper, if there is any in the block.
cv::Mat firstGuess(const cv::Mat& small) {
  cv::Mat dilated;
  const int block = std::max(3, std::max(small.cols, small.rows) / 8) | 1;
  cv::dilate(small, dilated, cv::getStructuringElement(cv::MORPH_RECT, {block, block}));
  cv::Mat guess;
  dilated.convertTo(guess, CV_32FC1);
  return guess;
}

/// The powers of each of `count` places.
std::vector<Powers> powersOfPlaces(int count) {
  std::vector<Powers> all(static_cast<std::size_t>(count));
  for (int i = 0; i < count; ++i) {
    double power = 1;
    for (double& of : all[static_cast<std::size_t>(i)]) {
      of = power;
      power *= placeOf(i, count);
    }
  }
  return all;
}

/// Sums over pixels of x^i y^j, and of their values times that.
struct PowerSums {
  std::array<Powers, 2 * kDegree + 1> ofPlaces{};
  std::array<std::array<double, kDegree + 1>, kDegree + 1> ofValues{};
};

/// The sums over the pixels whose value is at least `least` and at most `most` times the field's.
PowerSums powerSums(const cv::Mat& values, const cv::Mat& field, double least, double most) {
  PowerSums sums;
  const std::vector<Powers> columns = powersOfPlaces(values.cols);
  const std::vector<Powers> rows = powersOfPlaces(values.rows);
  for (int y = 0; y < values.rows; ++y) {
    Powers places{};
    std::array<double, kDegree + 1> weighted{};
    const float* value = values.ptr<float>(y);
    const float* expected = field.ptr<float>(y);
    for (std::size_t x = 0; x < columns.size(); ++x) {
      if (value[x] < least * expected[x] || value[x] > most * expected[x]) continue;
      for (std::size_t i = 0; i < places.size(); ++i) places[i] += columns[x][i];
      for (std::size_t i = 0; i < weighted.size(); ++i) weighted[i] += value[x] * columns[x][i];
    }
    const Powers& v = rows[static_cast<std::size_t>(y)];
    for (std::size_t j = 0; j < v.size(); ++j) {
      for (std::size_t i = 0; i < places.size(); ++i) sums.ofPlaces[i][j] += v[j] * places[i];
    }
    for (std::size_t j = 0; j < weighted.size(); ++j) {
      for (std::size_t i = 0; i < weighted.size(); ++i) sums.ofValues[i][j] += v[j] * weighted[i];
    }
  }
  return sums;
}

/// The polynomial's coefficients by least squares over the pixels that powerSums() takes.
cv::Mat fit(const cv::Mat& values, const cv::Mat& field, double least, double most) {
  const PowerSums sums = powerSums(values, field, least, most);
  cv::Matx<double, kTerms, kTerms> normal;
  cv::Vec<double, kTerms> right;
  for (int i = 0; i < kTerms; ++i) {
    const Term a = kPowers[static_cast<std::size_t>(i)];
    right[i] = sums.ofValues[a.x][a.y];
    for (int j = 0; j < kTerms; ++j) {
      const Term b = kPowers[static_cast<std::size_t>(j)];
      normal(i, j) = sums.ofPlaces[a.x + b.x][a.y + b.y];
    }
  }
  // A little towards flat: where no paper is seen the polynomial must not run away.
  const double weight = 1e-4 * std::max(1.0, normal(0, 0));
  for (int i = 1; i < kTerms; ++i) normal(i, i) += weight;
  normal(0, 0) += 1e-9;
  cv::Mat coefficients;
  cv::solve(normal, right, coefficients, cv::DECOMP_CHOLESKY);
  return coefficients;
}

/// The picture made smaller by `scale`, each pixel the mean of those it stands for; of some rows of them where those
/// are pixels enough.
cv::Mat smaller(const cv::Mat& grey, double scale) {
  constexpr double kPixelsEnough = 128;
  const cv::Size size(std::max(1, cvRound(grey.cols / scale)), std::max(1, cvRound(grey.rows / scale)));
  // No fewer rows than the small picture has: a long strip may be less high than a small pixel is wide.
  const double mostStep = static_cast<double>(grey.rows) / size.height;
  const int step = static_cast<int>(std::clamp(scale * scale / kPixelsEnough, 1.0, mostStep));
  const cv::Mat some(grey.rows / step, grey.cols, grey.type(), grey.data, grey.step * static_cast<std::size_t>(step));
  cv::Mat small;
  cv::resize(some, small, size, 0, 0, cv::INTER_AREA);
  return small;
}

/// The field's polynomial; places from -1 to 1 across the picture.
cv::Mat fieldOf(const Picture& picture) {
  const double scale = std::max(1.0, std::max(picture.width(), picture.height()) / kLightSidePx);
  const cv::Mat small = smaller(*picture.grey, scale);
  cv::Mat values;
  small.convertTo(values, CV_32FC1);
  constexpr int kRounds = 12;
  constexpr int kHighRounds = 3;
  constexpr double kSettled = 1e-6;  // grey levels
  constexpr double kAll = 0;
  constexpr double kNoLimit = 1e9;
  const cv::Mat guess = firstGuess(small);
  cv::Mat coefficients = fit(guess, guess, kAll, kNoLimit);
  for (int round = 0; round < kRounds; ++round) {
    // Paper lies within a tenth of the field; at first the field is still too high.
    const cv::Mat before = coefficients;
    coefficients = fit(values, evaluate(before, small.size()), round < kHighRounds ? 0.8 : 0.9, 1.15);
    if (round >= kHighRounds && cv::norm(before, coefficients, cv::NORM_INF) < kSettled) break;
  }
  return coefficients;
}

/// Brighter in all four corners than in the middle: no lamp does that, but a light drawing on white.
bool isBowl(const cv::Mat& field) {
  const float middle = field.at<float>(field.rows / 2, field.cols / 2);
  const int bottom = field.rows - 1;
  const int right = field.cols - 1;
  const float least = std::min(std::min(field.at<float>(0, 0), field.at<float>(0, right)),
                               std::min(field.at<float>(bottom, 0), field.at<float>(bottom, right)));
  return middle < 0.97F * least;
}

}  // namespace

cv::Mat lightField(const Picture& picture) { return evaluate(fieldOf(picture), picture.grey->size()); }

double evenness(const Picture& picture) {
  // Sampled: a few ten thousand pixels say it as well.
  const int step = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(picture.grey->total()) / 4e4)));
  cv::Mat grey;
  const cv::Size size(std::max(1, picture.width() / step), std::max(1, picture.height() / step));
  cv::resize(*picture.grey, grey, size, 0, 0, cv::INTER_NEAREST);
  const cv::Mat field = evaluate(fieldOf(picture), grey.size());
  int all = 0;
  int paper = 0;
  int close = 0;
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      const float share = static_cast<float>(grey.at<std::uint8_t>(y, x)) / field.at<float>(y, x);
      ++all;
      paper += share > 0.7F ? 1 : 0;
      close += share > 0.92F && share < 1.08F ? 1 : 0;
    }
  }
  if (paper < 0.33 * all || close < 0.85 * paper || isBowl(field)) return 1;
  double darkest = 0;
  double brightest = 0;
  cv::minMaxLoc(field, &darkest, &brightest);
  return brightest > 0 ? std::clamp(darkest / brightest, 0.0, 1.0) : 1;
}

namespace {

/// Pixels of one or three channels divided by the field.
cv::Mat dividedByLight(const cv::Mat& pixels, const cv::Mat& field) {
  // Whole numbers with ten binary places: the compiler turns these loops into vectors.
  constexpr int kPlaces = 10;
  constexpr float kOne = 1 << kPlaces;
  const auto channels = static_cast<std::size_t>(pixels.channels());
  cv::Mat even(pixels.size(), pixels.type());
  cv::parallel_for_(cv::Range(0, even.rows), [&](const cv::Range& rows) {
    std::vector<float> light(static_cast<std::size_t>(pixels.cols));
    std::vector<int> gain(channels * light.size());
    for (int y = rows.start; y < rows.end; ++y) {
      evaluateRow(field, pixels.size(), y, light.data());
      for (std::size_t x = 0; x < light.size(); ++x)
        std::fill_n(&gain[channels * x], channels, static_cast<int>(kOne * kPaper / light[x]));
      const std::uint8_t* from = pixels.ptr<std::uint8_t>(y);
      std::uint8_t* to = even.ptr<std::uint8_t>(y);
      for (std::size_t i = 0; i < gain.size(); ++i)
        to[i] = static_cast<std::uint8_t>(std::min(255, (from[i] * gain[i] + (1 << (kPlaces - 1))) >> kPlaces));
    }
  });
  return even;
}

}  // namespace

Picture withEvenLight(const Picture& picture) {
  return withPixels(picture, dividedByLight(*picture.bgr, fieldOf(picture)));
}

cv::Mat evenGrey(const Picture& picture) { return dividedByLight(*picture.grey, fieldOf(picture)); }

}  // namespace rim::picture
