#pragma once

#include <QImage>
#include <vector>

#include "app/bench/viewport.h"
#include "core/picture/picture.h"

class QPainter;

namespace rim::app {

/// The picture as it is drawn on the bench: smaller copies, each half as wide as the one before,
/// are made when a far view first needs them; near views show the pixels as squares.
class PictureLayer {
 public:
  /// `scale`: its pixels per pixel of the picture that it stands for, 1 unless it is a preview.
  void setPicture(const Picture& picture, double scale = 1);
  bool empty() const { return picture_.empty(); }
  /// In pixels of the picture that it stands for.
  QSizeF size() const { return QSizeF(picture_.width(), picture_.height()) * pixelSize_; }
  double pixelSize() const { return pixelSize_; }

  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double strength);

 private:
  const cv::Mat& level(std::size_t index);

  Picture picture_;
  double pixelSize_ = 1;
  std::vector<cv::Mat> smaller_;
};

}  // namespace rim::app
