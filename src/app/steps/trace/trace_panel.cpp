#include "app/steps/trace/trace_panel.h"

#include <QCheckBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QSpinBox>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"
#include "app/widgets/threshold_slider.h"
#include "core/picture/tone.h"

namespace rim::app {
namespace {

QDoubleSpinBox* numberBox(double low, double high, double step, int decimals, const QString& unit) {
  auto* box = new QDoubleSpinBox;
  box->setRange(low, high);
  box->setSingleStep(step);
  box->setDecimals(decimals);
  box->setSuffix(" " + unit);
  box->setKeyboardTracking(false);
  box->setFixedWidth(110);
  return box;
}

}  // namespace

TracePanel::TracePanel(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  panelLayout(this, tr("Trace"));
  buildThreshold();
  buildShape();
  static_cast<QVBoxLayout*>(layout())->addStretch(1);
}

void TracePanel::buildThreshold() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("What is ink"));
  slider_ = new ThresholdSlider;
  slider_->setObjectName("threshold");
  slider_->setAccessibleName(tr("Threshold"));
  slider_->setToolTip(tr("Levels left of the handle are darker than the threshold (darker: [  lighter: ])"));
  column->addWidget(slider_);
  auto* row = new QHBoxLayout;
  level_ = new QSpinBox;
  level_->setObjectName("level");
  level_->setRange(0, 255);
  level_->setKeyboardTracking(false);
  auto* label = new QLabel(tr("&Threshold"));
  label->setBuddy(level_);
  automatic_ = new QPushButton(tr("&Automatic"));
  automatic_->setObjectName("automatic");
  automatic_->setCheckable(true);
  automatic_->setToolTip(tr("Take the threshold that parts dark and light best, by Otsu's method (A)"));
  row->addWidget(label);
  row->addWidget(level_);
  row->addStretch(1);
  row->addWidget(automatic_);
  column->addLayout(row);
  lightIsInk_ = new QCheckBox(tr("&Light ink on dark"));
  lightIsInk_->setObjectName("lightIsInk");
  lightIsInk_->setToolTip(tr("Take the light part of the picture as the ink (L)"));
  column->addWidget(lightIsInk_);
  connect(slider_, &QAbstractSlider::valueChanged, this, &TracePanel::setThreshold);
  connect(slider_, &QAbstractSlider::sliderReleased, &session_, &Session::seal);
  connect(level_, &QSpinBox::valueChanged, this, &TracePanel::setThreshold);
  connect(automatic_, &QPushButton::clicked, this, &TracePanel::setAutomatic);
  connect(lightIsInk_, &QCheckBox::clicked, this, &TracePanel::setLightIsInk);
}

void TracePanel::buildShape() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("How its border is followed"));
  tolerance_ = numberBox(0.05, 10, 0.05, 2, tr("px"));
  tolerance_->setObjectName("tolerance");
  addRow(column, tr("&Tolerance"), tolerance_,
         tr("How far an outline may leave the measured border. More: fewer nodes. Less: closer."));
  smallest_ = numberBox(0, 1e6, 1, 1, tr("px²"));
  smallest_->setObjectName("smallest");
  addRow(column, tr("&Smallest part"), smallest_, tr("Islands and holes with a smaller area are left out."));
  corners_ = new QSlider(Qt::Horizontal);
  corners_->setObjectName("corners");
  corners_->setRange(0, 100);
  corners_->setFixedWidth(130);
  addRow(column, tr("&Corners"), corners_, tr("Left: everything is rounded. Right: every kink is kept sharp."));
  connect(tolerance_, &QDoubleSpinBox::valueChanged, this, [this](double px) {
    session_.edit(tr("Set tolerance"), "tolerance", [px](Job& job) { job.trace.tolerancePx = px; });
  });
  connect(smallest_, &QDoubleSpinBox::valueChanged, this, [this](double px2) {
    session_.edit(tr("Set smallest part"), "smallest", [px2](Job& job) { job.trace.minAreaPx2 = px2; });
  });
  connect(corners_, &QSlider::valueChanged, this, [this](int readiness) {
    session_.edit(tr("Set corners"), "corners", [readiness](Job& job) { job.trace.cornerReadiness = readiness; });
  });
  connect(corners_, &QSlider::sliderReleased, &session_, &Session::seal);
}

void TracePanel::setThreshold(int level) {
  session_.edit(tr("Move threshold"), "threshold", [level](Job& job) { job.trace.threshold = level; });
}

void TracePanel::setAutomatic(bool automatic) {
  session_.edit(automatic ? tr("Automatic threshold") : tr("Hold threshold"), {}, [automatic](Job& job) {
    job.trace.threshold = automatic ? std::optional<int>() : std::clamp(thresholdFor(job.picture, job.trace), 0, 255);
  });
}

void TracePanel::setLightIsInk(bool lightIsInk) {
  session_.edit(lightIsInk ? tr("Light ink on dark") : tr("Dark ink on light"), {},
                [lightIsInk](Job& job) { job.trace.lightIsInk = lightIsInk; });
}

void TracePanel::moveThreshold(int by) { slider_->setValue(slider_->value() + by); }

void TracePanel::show() {
  const Job& job = session_.job();
  setEnabled(session_.hasPicture());
  const auto set = [](auto* control, auto value) {
    const QSignalBlocker quiet(control);
    control->setValue(value);
  };
  const int threshold = std::clamp(thresholdFor(job.picture, job.trace), 0, 255);
  set(slider_, threshold);
  set(level_, threshold);
  set(tolerance_, job.trace.tolerancePx);
  set(smallest_, job.trace.minAreaPx2);
  set(corners_, static_cast<int>(std::lround(job.trace.cornerReadiness)));
  slider_->setHistogram(job.picture.histogram, otsuThreshold(job.picture.histogram));
  slider_->setLightIsInk(job.trace.lightIsInk);
  automatic_->setChecked(!job.trace.threshold);
  lightIsInk_->setChecked(job.trace.lightIsInk);
}

QString TracePanel::stateLine(const Session& session) {
  if (!session.hasPicture()) return tr("waits for a picture");
  if (!session.upToDate()) return tr("tracing…");
  const std::size_t outlines = session.job().tracing->outlines.size();
  if (outlines == 0) return tr("no outlines");
  return counted(outlines, tr("1 outline"), tr("%1 outlines"));
}

}  // namespace rim::app
