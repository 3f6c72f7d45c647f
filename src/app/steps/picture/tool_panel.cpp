#include "app/steps/picture/tool_panel.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/picture/picture_tools.h"
#include "app/widgets/panel_parts.h"
#include "core/picture/find_sheet.h"
#include "core/picture/straighten.h"

namespace rim::app {
namespace {

constexpr int kRoomPx = 4;  // above and below a tool

QDoubleSpinBox* number(double low, double high, double value, const QString& unit) {
  auto* box = new QDoubleSpinBox;
  box->setRange(low, high);
  box->setDecimals(0);
  box->setValue(value);
  box->setSuffix(unit);
  box->setFixedWidth(98);
  return box;
}

/// A quadrilateral to start from when no sheet is found.
picture::Quad insetCorners(const picture::Picture& picture) {
  const double w = picture.width();
  const double h = picture.height();
  return {Point{0.1 * w, 0.1 * h}, Point{0.9 * w, 0.1 * h}, Point{0.9 * w, 0.9 * h}, Point{0.1 * w, 0.9 * h}};
}

/// Those of the sheet, sure or not: they are there to be dragged.
picture::Quad cornersToBeginWith(const picture::Picture& picture) {
  const auto sheet = picture::findSheet(picture);
  return sheet ? sheet->corners : insetCorners(picture);
}

}  // namespace

ToolPanel::ToolPanel(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  auto* rows = partLayout(this);
  auto* grid = new QGridLayout;
  grid->setSpacing(2);
  constexpr int kToolColumns = 3;
  const std::pair<QString, QString> names[kKinds] = {
      {tr("Frame"), tr("Draw a frame: crop to it, or clear what is inside or outside")},
      {tr("Corners"), tr("Set the four corners of a photographed sheet")},
      {tr("Level"), tr("Draw along what ought to be level or upright")},
      {tr("Brush"), tr("Paint paper or ink")},
      {tr("Colour"), tr("Make a colour paper or ink")}};
  for (int kind = 0; kind < kKinds; ++kind) {
    buttons_[kind] = new QToolButton;
    buttons_[kind]->setObjectName("tool:" + names[kind].first);
    buttons_[kind]->setText(names[kind].first);
    buttons_[kind]->setToolTip(names[kind].second);
    buttons_[kind]->setCheckable(true);
    buttons_[kind]->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    grid->addWidget(buttons_[kind], kind / kToolColumns, kind % kToolColumns);
    connect(buttons_[kind], &QToolButton::clicked, this, [this, kind](bool on) { on ? choose(kind) : putAway(); });
  }
  rows->addLayout(grid);
  options_ = new QStackedWidget;
  for (QWidget* widget : {frameOptions(), cornersOptions(), levelOptions(), brushOptions(), colourOptions()}) {
    static_cast<QVBoxLayout*>(widget->layout())->addStretch(1);
    options_->addWidget(widget);
  }
  options_->hide();
  rows->addWidget(options_);
}

QWidget* ToolPanel::frameOptions() {
  auto* widget = new QWidget;
  auto* rows = partLayout(widget, kRoomPx);
  addText(rows,
          tr("Pull the frame on the bench. With keys: Space chooses a corner, arrows move it, with Ctrl by ten."));
  const auto offer = [this, rows](const QString& text, const QString& name,
                                  const std::function<picture::Preparation(picture::Crop)>& make) {
    auto* button = new QPushButton(text);
    button->setObjectName(name);
    rows->addWidget(button);
    connect(button, &QPushButton::clicked, this,
            [this, make] { finish(make(static_cast<FrameTool*>(tool_)->frame())); });
  };
  offer(tr("Crop to the frame"), "cropToFrame", [](picture::Crop frame) { return frame; });
  offer(tr("Clear outside"), "clearOutside", [](picture::Crop frame) { return picture::ClearFrame{frame, false}; });
  offer(tr("Clear inside"), "clearInside", [](picture::Crop frame) { return picture::ClearFrame{frame, true}; });
  return widget;
}

QWidget* ToolPanel::cornersOptions() {
  auto* widget = new QWidget;
  auto* rows = partLayout(widget, kRoomPx);
  addText(rows, tr("Drag each ring to a corner of the sheet. With keys: Space chooses a corner, arrows move it, with "
                   "Ctrl by ten."));
  ratio_ = new QComboBox;
  ratio_->addItem(tr("estimated"), 0.0);
  ratio_->addItem(tr("A sheet, level"), std::sqrt(2.0));
  ratio_->addItem(tr("A sheet, upright"), std::sqrt(0.5));
  ratio_->addItem(tr("Letter, level"), 11 / 8.5);
  ratio_->addItem(tr("Letter, upright"), 8.5 / 11);
  ratio_->addItem(tr("square"), 1.0);
  ratio_->addItem(tr("4 by 3"), 4 / 3.0);
  ratio_->addItem(tr("3 by 2"), 1.5);
  addRow(rows, tr("Side &ratio"), ratio_, tr("Width by height of the true sheet; it can be typed in the list below"));
  auto* button = new QPushButton(tr("Straighten"));
  button->setObjectName("straightenCorners");
  rows->addWidget(button);
  connect(button, &QPushButton::clicked, this, [this] {
    finish(picture::Straighten{static_cast<CornersTool*>(tool_)->corners(), ratio_->currentData().toDouble()});
  });
  return widget;
}

QWidget* ToolPanel::levelOptions() {
  auto* widget = new QWidget;
  addText(partLayout(widget),
          tr("Draw a line along something level or upright; the picture is turned when you let go."));
  return widget;
}

QWidget* ToolPanel::brushOptions() {
  auto* widget = new QWidget;
  auto* rows = partLayout(widget, kRoomPx);
  diameter_ = number(1, 500, 12, tr(" px"));
  addRow(rows, tr("&Size"), diameter_, tr("Diameter of the brush"));
  brushColour_ = new QComboBox;
  brushColour_->addItems({tr("paper"), tr("ink")});
  addRow(rows, tr("&Paint"), brushColour_, tr("Paper wipes, ink mends"));
  connect(diameter_, &QDoubleSpinBox::valueChanged, this, &ToolPanel::setBrush);
  connect(brushColour_, &QComboBox::currentIndexChanged, this, &ToolPanel::setBrush);
  return widget;
}

QWidget* ToolPanel::colourOptions() {
  auto* widget = new QWidget;
  auto* rows = partLayout(widget, kRoomPx);
  addText(rows, tr("Click a colour in the picture."));
  tolerance_ = number(0, 200, 20, {});
  addRow(rows, tr("&Tolerance"), tolerance_,
         tr("How different a colour may be: 2 is just visible, 100 is black against white"));
  pickTo_ = new QComboBox;
  pickTo_->addItems({tr("paper"), tr("ink")});
  addRow(rows, tr("&Becomes"), pickTo_, tr("What the colour becomes"));
  connected_ = new QCheckBox(tr("&Only what is connected"));
  rows->addWidget(connected_);
  rest_ = new QCheckBox(tr("The rest becomes the &other"));
  rest_->setObjectName("rest");
  rest_->setToolTip(
      tr("All that is not meant becomes ink when the colour becomes paper, and paper when it becomes ink"));
  rows->addWidget(rest_);
  return widget;
}

void ToolPanel::choose(int kind) {
  const picture::Picture& picture = session_.job().picture;
  if (picture.empty()) {
    putAway();
    return;
  }
  pictureSize_ = {picture.width(), picture.height()};
  BenchTool* tool = nullptr;
  if (kind == kFrame) tool = new FrameTool(picture.width(), picture.height(), this);
  if (kind == kCorners) tool = new CornersTool(cornersToBeginWith(picture), this);
  if (kind == kLevel) {
    auto* level = new LevelTool(this);
    connect(level, &LevelTool::drawn, this, [this](double degrees) { finish(picture::Turn{degrees}); });
    tool = level;
  }
  if (kind == kBrush) {
    auto* brush = new BrushTool(this);
    connect(brush, &BrushTool::swept, this, &ToolPanel::swept);
    tool = brush;
  }
  if (kind == kColour) {
    auto* pick = new PickTool(this);
    connect(pick, &PickTool::picked, this, [this](Point place) {
      emit wanted(picture::PickColour{place, tolerance_->value(), connected_->isChecked(), pickTo_->currentIndex() == 1,
                                      rest_->isChecked()});
    });
    tool = pick;
  }
  use(tool);
  for (int other = 0; other < kKinds; ++other) buttons_[other]->setChecked(other == kind);
  options_->setCurrentIndex(kind);
  options_->show();
  if (kind == kBrush) setBrush();
}

void ToolPanel::followPicture() {
  const picture::Picture& picture = session_.job().picture;
  if (tool_ != nullptr && QSize(picture.width(), picture.height()) != pictureSize_) putAway();
}

void ToolPanel::use(BenchTool* tool) {
  BenchTool* old = tool_;
  tool_ = tool;
  emit toolChanged(tool);
  if (old != nullptr) old->deleteLater();
}

void ToolPanel::putAway() {
  use(nullptr);
  for (QToolButton* button : buttons_) button->setChecked(false);
  options_->hide();
}

void ToolPanel::setBrush() {
  if (auto* brush = qobject_cast<BrushTool*>(tool_)) brush->set(diameter_->value(), brushColour_->currentIndex() == 1);
}

void ToolPanel::finish(const picture::Preparation& what) {
  putAway();
  emit wanted(what);
}

}  // namespace rim::app
