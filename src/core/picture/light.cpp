#include "core/picture/light.h"

#include <opencv2/imgproc.hpp>

namespace rim {
namespace {

constexpr int kTerms = 10;
constexpr double kSmallSide = 160;
constexpr double kPaper = 245;  // what paper becomes

/// The terms of a polynomial of third degree; x and y from -1 to 1.
cv::Vec<double, kTerms> terms(double x, double y) {
  return {1, x, y, x * x, x * y, y * y, x * x * x, x * x * y, x * y * y, y * y * y};
}

double placeOf(int i, int count) { return count > 1 ? 2.0 * i / (count - 1) - 1 : 0; }

cv::Mat evaluate(const cv::Mat& coefficients, cv::Size size) {
  cv::Mat field(size, CV_32FC1);
  const double* c = coefficients.ptr<double>();
  for (int y = 0; y < size.height; ++y) {
    float* row = field.ptr<float>(y);
    const double v = placeOf(y, size.height);
    // Along a row it is a cubic in x alone.
    const double c0 = c[0] + v * (c[2] + v * (c[5] + v * c[9]));
    const double c1 = c[1] + v * (c[4] + v * c[8]);
    const double c2 = c[3] + v * c[7];
    for (int x = 0; x < size.width; ++x) {
      const double u = placeOf(x, size.width);
      row[x] = static_cast<float>(std::max(8.0, c0 + u * (c1 + u * (c2 + u * c[6]))));
    }
  }
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

cv::Mat fit(const cv::Mat& values, const cv::Mat& field, double least, double most) {
  cv::Mat normal = cv::Mat::zeros(kTerms, kTerms, CV_64FC1);
  cv::Mat right = cv::Mat::zeros(kTerms, 1, CV_64FC1);
  for (int y = 0; y < values.rows; ++y) {
    for (int x = 0; x < values.cols; ++x) {
      const double value = values.at<float>(y, x);
      const double expected = field.at<float>(y, x);
      if (value < least * expected || value > most * expected) continue;
      const auto t = terms(placeOf(x, values.cols), placeOf(y, values.rows));
      for (int i = 0; i < kTerms; ++i) {
        for (int j = 0; j < kTerms; ++j) normal.at<double>(i, j) += t[i] * t[j];
        right.at<double>(i) += t[i] * value;
      }
    }
  }
  // A little towards flat: where no paper is seen the polynomial must not run away.
  const double weight = 1e-4 * std::max(1.0, normal.at<double>(0, 0));
  for (int i = 1; i < kTerms; ++i) normal.at<double>(i, i) += weight;
  normal.at<double>(0, 0) += 1e-9;
  cv::Mat coefficients;
  cv::solve(normal, right, coefficients, cv::DECOMP_CHOLESKY);
  return coefficients;
}

}  // namespace

cv::Mat lightField(const Picture& picture) {
  const double scale = std::max(1.0, std::max(picture.width(), picture.height()) / kSmallSide);
  cv::Mat small;
  cv::resize(*picture.grey, small, {}, 1 / scale, 1 / scale, cv::INTER_AREA);
  cv::Mat values;
  small.convertTo(values, CV_32FC1);
  constexpr int kRounds = 12;
  constexpr double kAll = 0;
  constexpr double kNoLimit = 1e9;
  const cv::Mat guess = firstGuess(small);
  cv::Mat coefficients = fit(guess, guess, kAll, kNoLimit);
  for (int round = 0; round < kRounds; ++round) {
    // Paper lies within a tenth of the field; at first the field is still too high.
    coefficients = fit(values, evaluate(coefficients, small.size()), round < 3 ? 0.8 : 0.9, 1.15);
  }
  return evaluate(coefficients, picture.grey->size());
}

namespace {

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

double evenness(const Picture& picture) {
  const cv::Mat field = lightField(picture);
  cv::Mat grey;
  picture.grey->convertTo(grey, CV_32FC1);
  // Sampled: a few ten thousand pixels say it as well.
  const int step = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(grey.total()) / 4e4)));
  int all = 0;
  int paper = 0;
  int close = 0;
  for (int y = 0; y < grey.rows; y += step) {
    for (int x = 0; x < grey.cols; x += step) {
      const double share = grey.at<float>(y, x) / field.at<float>(y, x);
      ++all;
      paper += share > 0.7 ? 1 : 0;
      close += share > 0.92 && share < 1.08 ? 1 : 0;
    }
  }
  if (paper < 0.33 * all || close < 0.85 * paper || isBowl(field)) return 1;
  double darkest = 0;
  double brightest = 0;
  cv::minMaxLoc(field, &darkest, &brightest);
  return brightest > 0 ? std::clamp(darkest / brightest, 0.0, 1.0) : 1;
}

Picture withEvenLight(const Picture& picture) {
  const cv::Mat field = lightField(picture);
  cv::Mat even(picture.bgr->size(), CV_8UC3);
  cv::parallel_for_(cv::Range(0, even.rows), [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      const cv::Vec3b* from = picture.bgr->ptr<cv::Vec3b>(y);
      const float* light = field.ptr<float>(y);
      cv::Vec3b* to = even.ptr<cv::Vec3b>(y);
      for (int x = 0; x < even.cols; ++x) {
        const float gain = static_cast<float>(kPaper) / light[x];
        for (int c = 0; c < 3; ++c) to[x][c] = cv::saturate_cast<std::uint8_t>(static_cast<float>(from[x][c]) * gain);
      }
    }
  });
  return withPixels(picture, even);
}

}  // namespace rim
