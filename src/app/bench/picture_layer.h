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
  void setPicture(const Picture& picture);
  bool empty() const { return picture_.empty(); }
  int width() const { return picture_.width(); }
  int height() const { return picture_.height(); }

  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double strength);

 private:
  const cv::Mat& level(std::size_t index);

  Picture picture_;
  std::vector<cv::Mat> smaller_;
};

}  // namespace rim::app
