#include "app/steps/trace/trace_panel.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QSpinBox>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/trace/smoothness_curve.h"
#include "app/steps/trace/stroke_controls.h"
#include "app/steps/trace/trace_room.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"
#include "app/widgets/threshold_slider.h"
#include "core/picture/tone.h"
#include "core/trace/starting_point.h"

namespace rim::app {
TracePanel::TracePanel(Session& session, const TraceActions& actions, QWidget* parent)
    : QWidget(parent), session_(session) {
  panelLayout(this, tr("Trace"));
  buildThreshold();
  buildShape(actions);
  buildExact();
  buildResult(actions);
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
  connect(lightIsInk_, &QCheckBox::clicked, this, [this](bool on) { takeLightAsInk(session_, on); });
}

void TracePanel::buildShape(const TraceActions& actions) {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("What is made of it"));
  strokes_ = new StrokeControls(session_, actions);
  column->addWidget(strokes_);
  addHeading(column, tr("How its border is followed"));
  auto* beginning = new QComboBox;
  beginning->setObjectName("startingPoint");
  beginning->setPlaceholderText(tr("choose"));
  beginning->addItems({tr("crisp artwork"), tr("small web picture"), tr("ink on paper"), tr("phone photo")});
  beginning->setCurrentIndex(-1);
  beginning->setFixedWidth(160);
  addRow(column, tr("Start &from"), beginning, tr("Settings that are a good beginning for such a picture"));
  connect(beginning, &QComboBox::activated, this, [this, beginning](int index) {
    session_.edit(tr("Start from: %1").arg(beginning->itemText(index)), {}, [index](job::Job& job) {
      job.trace = trace::settingsFor(static_cast<trace::StartingPoint>(index), job.trace);
    });
    beginning->setCurrentIndex(-1);
  });
  tolerance_ = numberField(0.05, 10, 0.05, 2, tr("px"));
  tolerance_->setObjectName("tolerance");
  addRow(column, tr("S&moothness"), tolerance_,
         tr("The tolerance: how far an outline may leave the measured border. More: fewer nodes. Less: closer."));
  curve_ = new SmoothnessCurve;
  curve_->setObjectName("smoothnessCurve");
  connect(curve_, &SmoothnessCurve::chosen, tolerance_, &QDoubleSpinBox::setValue);
  column->addWidget(curve_);
  smallest_ = numberField(0, 1e6, 1, 1, tr("px²"));
  smallest_->setObjectName("smallest");
  addRow(column, tr("&Smallest part"), smallest_, tr("Islands and holes with a smaller area are left out."));
  corners_ = new QSlider(Qt::Horizontal);
  corners_->setObjectName("corners");
  corners_->setRange(0, 100);
  corners_->setFixedWidth(130);
  addRow(column, tr("&Corners"), corners_, tr("Left: everything is rounded. Right: every kink is kept sharp."));
  connect(tolerance_, &QDoubleSpinBox::valueChanged, this, [this](double px) {
    session_.edit(tr("Set tolerance"), "tolerance", [px](job::Job& job) { job.trace.tolerancePx = px; });
  });
  connect(smallest_, &QDoubleSpinBox::valueChanged, this, [this](double px2) {
    session_.edit(tr("Set smallest part"), "smallest", [px2](job::Job& job) { job.trace.minAreaPx2 = px2; });
  });
  connect(corners_, &QSlider::valueChanged, this, [this](int readiness) {
    session_.edit(tr("Set corners"), "corners", [readiness](job::Job& job) { job.trace.cornerReadiness = readiness; });
  });
  connect(corners_, &QSlider::sliderReleased, &session_, &Session::seal);
}

void TracePanel::buildExact() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("Made exact where the border allows it"));
  auto* grid = new QGridLayout;
  grid->setVerticalSpacing(2);
  const std::tuple<QString, QString, bool trace::Rules::*> rules[] = {
      {tr("level, upright"), tr("Lines within 0.3 degrees of level or upright become so"), &trace::Rules::level},
      {tr("parallel, square"), tr("Lines within 0.3 degrees of parallel or square to each other"),
       &trace::Rules::parallel},
      {tr("equal radii"), tr("Arcs and circles whose radii hardly differ"), &trace::Rules::equalRadii},
      {tr("concentric"), tr("Circles whose centres hardly differ"), &trace::Rules::concentric},
      {tr("tangent"), tr("Arcs that go over smoothly into lines or each other"), &trace::Rules::tangent}};
  for (const auto& [name, tip, rule] : rules) {
    auto* box = new QCheckBox(name);
    box->setToolTip(tip);
    box->setObjectName("exact:" + name);
    const int at = static_cast<int>(exact_.size());
    grid->addWidget(box, at / 2, at % 2);
    exact_.emplace_back(box, rule);
    connect(box, &QCheckBox::clicked, this, [this, wanted = rule, name = name](bool on) {
      session_.edit(on ? tr("Make exact: %1").arg(name) : tr("Leave as traced: %1").arg(name), {},
                    [wanted, on](job::Job& job) { job.trace.rules.*wanted = on; });
    });
  }
  column->addLayout(grid);
}

void TracePanel::setSwitching(bool on) { emit toolChanged(on ? strokes_->takeTool() : nullptr); }

void TracePanel::buildResult(const TraceActions& actions) {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("What came of it"));
  counts_ = addText(column);
  counts_->setObjectName("segmentCounts");
  reference_ = addText(column);
  reference_->setObjectName("referenceCounts");
  const auto addButtons = [column](QAction* left, const QString& leftText, QAction* right, const QString& rightText) {
    auto* row = new QHBoxLayout;
    for (const auto& [action, text] : {std::pair(left, leftText), std::pair(right, rightText)}) {
      auto* button = buttonFor(action);
      button->setText(text);
      row->addWidget(button);
    }
    column->addLayout(row);
  };
  addButtons(actions.reference, tr("Keep as reference"), actions.dropReference, tr("Drop it"));
  farthest_ = addText(column);
  farthest_->setObjectName("farthest");
  addButtons(actions.deviation, tr("Show distances"), actions.worst, tr("Go there"));
}

namespace {

QString segmentText(const Drawing& tracing) {
  const Counts counts = countsOf(pathsOf(tracing));
  return TracePanel::tr("%1 nodes: %2 lines, %3 arcs, %4 curves")
      .arg(counts.nodes)
      .arg(counts.lines)
      .arg(counts.arcs)
      .arg(counts.curves);
}

}  // namespace

/// The nodes along the smoothness are counted beside the window once the outlines are there and looked at.
void TracePanel::countNodes() {
  const job::Job& job = session_.job();
  curve_->setTolerance(job.trace.tolerancePx);
  trace::TraceSettings settings = job.trace;
  settings.tolerancePx = trace::TraceSettings().tolerancePx;
  const bool twoTones = session_.hasPicture() && !job.inks;
  const bool known = counted_.picture == job.picture.id && counted_.settings == settings;
  if (!twoTones || !known) curve_->setNodes({});
  if (!twoTones || known || !isVisible() || !session_.upToDate()) return;
  constexpr int kMostPixels = 4'000'000;
  if (job.picture.width() * static_cast<double>(job.picture.height()) > kMostPixels) return;
  counted_ = {job.picture.id, settings};
  const auto count = [picture = job.picture, settings](const std::stop_token& stop) {
    return trace::nodesAlongSmoothness(picture, settings, stop);
  };
  counting_.begin(this, count, [this, asked = counted_](const Outcome<std::vector<trace::NodesAt>>& got) {
    if (asked.picture != counted_.picture || !(asked.settings == counted_.settings)) return;
    if (got.trouble.isEmpty()) curve_->setNodes(got.result);
  });
}

void TracePanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  countNodes();
}

void TracePanel::showResult() {
  const auto& tracing = session_.job().tracing;
  if (tracing) counts_->setText(segmentText(*tracing));
  const auto reference = session_.reference();
  reference_->setVisible(reference != nullptr);
  if (reference) reference_->setText(tr("Reference copy: %1").arg(segmentText(*reference)));
}

void TracePanel::showDeviation(const std::shared_ptr<const trace::Deviation>& deviation) {
  farthest_->setVisible(deviation != nullptr);
  if (deviation && deviation->outlines.empty()) {
    farthest_->setText(tr("The middles of strokes follow no border: there is no distance to show."));
  } else if (deviation) {
    farthest_->setText(tr("Farthest from the border: %1 px. At corners that is what pixels round off.")
                           .arg(deviation->largest, 0, 'f', 2));
  }
}

void TracePanel::setThreshold(int level) {
  session_.edit(tr("Move threshold"), "threshold", [level](job::Job& job) { job.trace.threshold = level; });
}

void TracePanel::setAutomatic(bool automatic) {
  session_.edit(automatic ? tr("Automatic threshold") : tr("Hold threshold"), {}, [automatic](job::Job& job) {
    job.trace.threshold =
        automatic ? std::optional<int>() : std::clamp(trace::contour::thresholdFor(job.picture, job.trace), 0, 255);
  });
}

void TracePanel::moveThreshold(int by) { slider_->setValue(slider_->value() + by); }

void TracePanel::show() {
  const job::Job& job = session_.job();
  setEnabled(session_.hasPicture());
  const auto set = [](auto* control, auto value) {
    const QSignalBlocker quiet(control);
    control->setValue(value);
  };
  const int threshold = std::clamp(trace::contour::thresholdFor(job.picture, job.trace), 0, 255);
  set(slider_, threshold);
  set(level_, threshold);
  set(tolerance_, job.trace.tolerancePx);
  set(smallest_, job.trace.minAreaPx2);
  set(corners_, static_cast<int>(std::lround(job.trace.cornerReadiness)));
  slider_->setHistogram(job.picture.histogram, picture::otsuThreshold(job.picture.histogram));
  slider_->setLightIsInk(job.trace.lightIsInk);
  automatic_->setChecked(!job.trace.threshold);
  lightIsInk_->setChecked(job.trace.lightIsInk);
  strokes_->show();
  for (const auto& [box, rule] : exact_) box->setChecked(job.trace.rules.*rule);
  showResult();
  countNodes();
}

QString TracePanel::stateLine(const Session& session) {
  if (!session.hasPicture()) return tr("waits for a picture");
  if (!session.upToDate()) return tr("tracing…");
  const std::size_t outlines = session.job().tracing->outlines.size();
  if (outlines == 0) return tr("no outlines");
  return counted(outlines, tr("1 outline"), tr("%1 outlines"));
}

}  // namespace rim::app
