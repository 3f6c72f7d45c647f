#pragma once

#include <QAbstractSlider>
#include <optional>

#include "core/picture/picture.h"

namespace rim::app {

/// A slider over the grey levels 0..255 with the picture's histogram behind it: what counts as
/// ink is drawn solid, what counts as paper hollow. A small mark shows the automatic choice.
class ThresholdSlider : public QAbstractSlider {
  Q_OBJECT

 public:
  explicit ThresholdSlider(QWidget* parent = nullptr);

  void setHistogram(const picture::Histogram& histogram, std::optional<int> automatic);
  void setLightIsInk(bool lightIsInk);

  QSize sizeHint() const override { return {240, 110}; }
  QSize minimumSizeHint() const override { return {160, 90}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;

 private:
  QRectF chart() const;
  double xOf(int level) const;
  int levelAt(double x) const;

  picture::Histogram histogram_{};
  std::optional<int> automatic_;
  bool lightIsInk_ = false;
};

}  // namespace rim::app
