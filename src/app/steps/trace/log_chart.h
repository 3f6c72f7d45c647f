#pragma once

#include <QWidget>

class QPainter;

namespace rim::app {

/// A small chart over an axis that grows by its logarithm, with a line under it for what its ends mean.
class LogChart : public QWidget {
  Q_OBJECT

 public:
  QSize sizeHint() const override { return {240, heightPx_}; }
  QSize minimumSizeHint() const override { return {160, heightPx_}; }

 protected:
  /// From `least` to `most`, both > 0.
  LogChart(double least, double most, int heightPx, QWidget* parent);

  QRectF chart() const;
  double xOf(double value) const;
  double valueAt(double x) const;

  void paintFrame(QPainter& painter) const;
  /// A line through the chart at a value.
  void paintMark(QPainter& painter, double value) const;
  void paintFoot(QPainter& painter, const QString& left, const QString& middle, const QString& right) const;

 private:
  double least_;
  double most_;
  int heightPx_;
};

}  // namespace rim::app
