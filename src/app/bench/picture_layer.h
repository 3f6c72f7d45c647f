#pragma once

#include <QImage>
#include <memory>
#include <vector>

#include "app/bench/viewport.h"
#include "core/picture/picture.h"

class QPainter;

namespace rim::app {

/// The picture, or its inks, as it is drawn on the bench: smaller copies, each half as wide as the one before,
/// are made when a far view first needs them; near views show the pixels as squares. Inks are coloured when they are
/// drawn, and only as far as they are seen.
class PictureLayer {
 public:
  /// `scale`: its pixels per pixel of the picture that it stands for, 1 unless it is a preview.
  void setPicture(const picture::Picture& picture, double scale = 1);
  /// `labels` are CV_8UC1, `colours` what each is shown in: 256 of CV_8UC3 in OpenCV's channel order.
  void setInks(std::shared_ptr<const cv::Mat> labels, const cv::Mat& colours);
  void clear() { setPicture({}); }
  bool empty() const { return !pixels_ || pixels_->empty(); }
  /// In pixels of the picture that it stands for.
  QSizeF size() const { return empty() ? QSizeF() : QSizeF(pixels_->cols, pixels_->rows) * pixelSize_; }
  double pixelSize() const { return pixelSize_; }

  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double strength);

 private:
  cv::Mat coloured(const cv::Mat& pixels) const;
  cv::Mat half() const;
  cv::Mat level(std::size_t index);

  std::shared_ptr<const cv::Mat> pixels_;
  cv::Mat colours_;  ///< of inks; empty: the pixels are colours themselves
  double pixelSize_ = 1;
  std::vector<cv::Mat> smaller_;
};

}  // namespace rim::app
