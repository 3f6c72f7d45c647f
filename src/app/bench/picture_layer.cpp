#include "app/bench/picture_layer.h"

#include <QPainter>
#include <opencv2/imgproc.hpp>

namespace rim::app {

void PictureLayer::setPicture(const Picture& picture, double scale) {
  picture_ = picture;
  pixelSize_ = 1 / scale;
  smaller_.clear();
}

const cv::Mat& PictureLayer::level(std::size_t index) {
  if (index == 0) return *picture_.bgr;
  while (smaller_.size() < index) {
    const cv::Mat& larger = smaller_.empty() ? *picture_.bgr : smaller_.back();
    cv::Mat half;
    cv::resize(larger, half, {std::max(1, larger.cols / 2), std::max(1, larger.rows / 2)}, 0, 0, cv::INTER_AREA);
    smaller_.push_back(std::move(half));
  }
  return smaller_[index - 1];
}

void PictureLayer::paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double strength) {
  if (empty() || strength <= 0) return;
  std::size_t index = 0;
  for (double scale = viewport.scale * pixelSize_; scale <= 0.5 && index < 8; scale *= 2) ++index;
  const cv::Mat& pixels = level(index);
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
  const QImage image(pixels.ptr(source.top()) + 3 * source.left(), source.width(), source.height(),
                     static_cast<qsizetype>(pixels.step), QImage::Format_BGR888);
  painter.save();
  painter.setOpacity(strength);
  painter.setRenderHint(QPainter::SmoothPixmapTransform, viewport.scale * pixelSize_ < 2 || pixelSize_ > 1);
  painter.drawImage(target, image);
  painter.restore();
}

}  // namespace rim::app
