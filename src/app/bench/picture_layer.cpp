#include "app/bench/picture_layer.h"

#include <QPainter>
#include <algorithm>
#include <opencv2/imgproc.hpp>

namespace rim::app {
namespace {

cv::Vec3b meanOf(const cv::Vec3b& a, const cv::Vec3b& b, const cv::Vec3b& c, const cv::Vec3b& d) {
  const cv::Vec3i sum = cv::Vec3i(a) + cv::Vec3i(b) + cv::Vec3i(c) + cv::Vec3i(d);
  return {static_cast<std::uint8_t>(sum[0] / 4), static_cast<std::uint8_t>(sum[1] / 4),
          static_cast<std::uint8_t>(sum[2] / 4)};
}

}  // namespace

void PictureLayer::setPicture(const picture::Picture& picture, double scale) {
  pixels_ = picture.empty() ? nullptr : std::make_shared<const cv::Mat>(*picture.bgr);
  colours_.release();
  pixelSize_ = 1 / scale;
  smaller_.clear();
}

void PictureLayer::setInks(std::shared_ptr<const cv::Mat> labels, const cv::Mat& colours) {
  pixels_ = std::move(labels);
  colours_ = colours;
  pixelSize_ = 1;
  smaller_.clear();
}

cv::Mat PictureLayer::coloured(const cv::Mat& pixels) const {
  if (colours_.empty()) return pixels;
  cv::Mat result(pixels.size(), CV_8UC3);
  const auto* colours = colours_.ptr<cv::Vec3b>();
  for (int y = 0; y < pixels.rows; ++y) {
    const auto* labels = pixels.ptr<std::uint8_t>(y);
    std::transform(labels, labels + pixels.cols, result.ptr<cv::Vec3b>(y), [colours](auto i) { return colours[i]; });
  }
  return result;
}

/// The picture half as wide. Of inks in one go: the coloured pixels of a large picture would take long to put anywhere.
cv::Mat PictureLayer::half() const {
  const cv::Mat& all = *pixels_;
  cv::Mat half(std::max(1, all.rows / 2), std::max(1, all.cols / 2), CV_8UC3);
  if (colours_.empty()) {
    cv::resize(all, half, half.size(), 0, 0, cv::INTER_AREA);
    return half;
  }
  const auto* colours = colours_.ptr<cv::Vec3b>();
  cv::parallel_for_({0, half.rows}, [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      const auto* upper = all.ptr<std::uint8_t>(2 * y);
      const auto* lower = all.ptr<std::uint8_t>(std::min(2 * y + 1, all.rows - 1));
      auto* row = half.ptr<cv::Vec3b>(y);
      for (int x = 0; x < half.cols; ++x) {
        const int right = std::min(2 * x + 1, all.cols - 1);
        const std::uint8_t first = upper[2 * x];
        const bool same = first == upper[right] && first == lower[2 * x] && first == lower[right];
        row[x] = same ? colours[first]
                      : meanOf(colours[first], colours[upper[right]], colours[lower[2 * x]], colours[lower[right]]);
      }
    }
  });
  return half;
}

cv::Mat PictureLayer::level(std::size_t index) {
  if (smaller_.empty()) smaller_.push_back(half());
  while (smaller_.size() < index) {
    const cv::Mat& larger = smaller_.back();
    cv::Mat smaller;
    cv::resize(larger, smaller, {std::max(1, larger.cols / 2), std::max(1, larger.rows / 2)}, 0, 0, cv::INTER_AREA);
    smaller_.push_back(std::move(smaller));
  }
  return smaller_[index - 1];
}

void PictureLayer::paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double strength) {
  if (empty() || strength <= 0) return;
  std::size_t index = 0;
  for (double scale = viewport.scale * pixelSize_; scale <= 0.5 && index < 8; scale *= 2) ++index;
  const cv::Mat pixels = index == 0 ? *pixels_ : level(index);
  const QPointF upperLeft = viewport.toScreen({0, size().height()});
  const QRectF whole(upperLeft, size() * viewport.scale);
  // Only what is seen is drawn: near views would else scale the whole picture.
  const double kx = pixels.cols / whole.width();
  const double ky = pixels.rows / whole.height();
  const QRectF seen = whole.intersected(visible);
  if (seen.isEmpty()) return;
  const QRect source =
      QRectF((seen.left() - whole.left()) * kx, (seen.top() - whole.top()) * ky, seen.width() * kx, seen.height() * ky)
          .toAlignedRect()
          .adjusted(-1, -1, 1, 1)
          .intersected(QRect(0, 0, pixels.cols, pixels.rows));
  const QRectF target(whole.left() + source.left() / kx, whole.top() + source.top() / ky, source.width() / kx,
                      source.height() / ky);
  const cv::Mat part = pixels({source.left(), source.top(), source.width(), source.height()});
  const cv::Mat shown = index == 0 ? coloured(part) : part;
  const QImage image(shown.data, shown.cols, shown.rows, static_cast<qsizetype>(shown.step), QImage::Format_BGR888);
  painter.save();
  painter.setOpacity(strength);
  painter.setRenderHint(QPainter::SmoothPixmapTransform, viewport.scale * pixelSize_ < 2 || pixelSize_ > 1);
  painter.drawImage(target, image);
  painter.restore();
}

}  // namespace rim::app
