#include "app/steps/refine/hand/shape_bar.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QSpinBox>
#include <QVBoxLayout>
#include <utility>

#include "app/widgets/panel_parts.h"

namespace rim::app {

ShapeBar::ShapeBar(QWidget* parent) : QWidget(parent) {
  auto* column = partLayout(this);
  kind_ = new QComboBox;
  kind_->setObjectName("shapeKind");
  // In the order of enum ShapeKind, and behind them of enum Way.
  kind_->addItems({tr("line"), tr("rectangle"), tr("circle"), tr("ellipse"), tr("regular polygon"), tr("star"),
                   tr("slot"), tr("lines, click by click"), tr("arc through three places")});
  kind_->setCurrentIndex(static_cast<int>(wish_.kind));
  addRow(column, tr("S&hape"), kind_, tr("What is drawn"));
  cornersRow_ = new QWidget;
  corners_ = new QSpinBox;
  corners_->setObjectName("shapeCorners");
  constexpr int kFewest = 3;
  constexpr int kMost = 1000;
  corners_->setRange(kFewest, kMost);
  corners_->setValue(wish_.corners);
  addRow(partLayout(cornersRow_), tr("Corners"), corners_, tr("Of a polygon, or tips of a star"));
  column->addWidget(cornersRow_);
  roundingRow_ = new QWidget;
  constexpr double kMostMm = 10'000;
  rounding_ = numberField(0, kMostMm, 1, 2, tr("mm"));
  rounding_->setObjectName("shapeRounding");
  addRow(partLayout(roundingRow_), tr("Rounded by"), rounding_, tr("The radius of a rectangle's corners"));
  column->addWidget(roundingRow_);
  connect(kind_, &QComboBox::currentIndexChanged, this, &ShapeBar::take);
  connect(corners_, &QSpinBox::valueChanged, this, &ShapeBar::take);
  connect(rounding_, &QDoubleSpinBox::valueChanged, this, &ShapeBar::take);
  take();
}

void ShapeBar::take() {
  constexpr int kShapes = static_cast<int>(refine::ShapeKind::Slot) + 1;
  const int which = kind_->currentIndex();
  const Way way = which < kShapes ? Way::Shape : which == kShapes ? Way::Lines : Way::Arc;
  if (way == Way::Shape) wish_.kind = static_cast<refine::ShapeKind>(which);
  const bool other = way != std::exchange(way_, way);
  wish_.corners = corners_->value();
  wish_.rounding = rounding_->value();
  const bool shape = way == Way::Shape;
  cornersRow_->setVisible(shape && (wish_.kind == refine::ShapeKind::Polygon || wish_.kind == refine::ShapeKind::Star));
  roundingRow_->setVisible(shape && wish_.kind == refine::ShapeKind::Rectangle);
  emit wished(wish_);
  if (other) emit wayChanged(way);
}

}  // namespace rim::app
