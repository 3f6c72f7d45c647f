#include "app/steps/trace/stroke_controls.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <limits>

#include "app/session.h"
#include "app/steps/trace/part_tool.h"
#include "app/steps/trace/trace_room.h"
#include "app/steps/trace/width_chart.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {

StrokeControls::StrokeControls(Session& session, const TraceActions& actions, QWidget* parent)
    : QWidget(parent), session_(session) {
  partLayout(this);
  buildMethod();
  buildLimit();
  buildParts(actions);
  buildEnds();
}

void StrokeControls::buildMethod() {
  auto* row = new QHBoxLayout;
  row->setSpacing(0);
  method_ = new QButtonGroup(this);
  const std::tuple<QString, QString, trace::TraceMethod> methods[] = {
      {tr("&Borders"), tr("An outline round all ink"), trace::TraceMethod::Outline},
      {tr("Stro&kes"), tr("One line along the middle of each stroke that the pen drew"),
       trace::TraceMethod::Centreline},
      {tr("B&oth"), tr("Strokes up to a width become lines, wider ink keeps its borders"), trace::TraceMethod::Mixed}};
  for (const auto& [name, tip, method] : methods) {
    auto* button = new QPushButton(name);
    button->setCheckable(true);
    button->setToolTip(tip);
    button->setObjectName("method:" + QString(name).remove('&').toLower());
    method_->addButton(button, static_cast<int>(method));
    row->addWidget(button);
  }
  static_cast<QVBoxLayout*>(layout())->addLayout(row);
  connect(method_, &QButtonGroup::idClicked, this, [this](int id) {
    const QString name = method_->button(id)->text().remove('&').toLower();
    session_.edit(tr("Trace %1").arg(name), {},
                  [id](job::Job& job) { job.trace.method = static_cast<trace::TraceMethod>(id); });
  });
}

void StrokeControls::buildLimit() {
  limitPart_ = new QWidget;
  auto* column = partLayout(limitPart_);
  chart_ = new WidthChart;
  chart_->setObjectName("widthChart");
  column->addWidget(chart_);
  automatic_ = new QPushButton(tr("A&utomatic width"));
  automatic_->setObjectName("automaticLimit");
  automatic_->setCheckable(true);
  automatic_->setToolTip(tr("Take the width between the two groups that the ink falls into"));
  column->addWidget(automatic_, 0, Qt::AlignRight);
  layout()->addWidget(limitPart_);
  connect(chart_, &WidthChart::moved, this, [this](double px) {
    session_.edit(tr("Set widest stroke"), "strokeLimit", [px](job::Job& job) { job.trace.strokes.limitPx = px; });
  });
  connect(chart_, &WidthChart::released, &session_, &Session::seal);
  connect(automatic_, &QPushButton::clicked, this, [this](bool on) {
    const double held = std::clamp(chart_->limit(), trace::kLeastStrokeLimitPx, trace::kMostStrokeLimitPx);
    session_.edit(on ? tr("Automatic width") : tr("Hold width"), {},
                  [on, held](job::Job& job) { job.trace.strokes.limitPx = on ? std::optional<double>() : held; });
  });
}

void StrokeControls::buildParts(const TraceActions& actions) {
  parts_ = new PartTool(this);
  auto* row = new QHBoxLayout;
  row->addWidget(buttonFor(actions.switchParts), 1);
  partsBack_ = new QPushButton;
  partsBack_->setObjectName("partsBack");
  partsBack_->setToolTip(tr("All parts are again what their width makes them"));
  row->addWidget(partsBack_);
  static_cast<QVBoxLayout*>(limitPart_->layout())->addLayout(row);
  connect(parts_, &PartTool::pointedAt, this, &StrokeControls::switchAt);
  connect(partsBack_, &QPushButton::clicked, this, [this] {
    session_.edit(tr("Put parts back"), {}, [](job::Job& job) { job.trace.strokes.switched.clear(); });
  });
}

void StrokeControls::switchAt(Point place, bool whole) {
  const picture::Picture& picture = session_.job().picture;
  if (place.x < 0 || place.y < 0 || place.x > picture.width() || place.y > picture.height()) return;
  if (session_.job().trace.strokes.switched.size() >= trace::kMostSwitched) return;
  const Point upright{place.x, picture.height() - place.y};
  session_.edit(whole ? tr("Switch all that hangs together") : tr("Switch a part"), {},
                [upright, whole](job::Job& job) {
                  job.trace.strokes.switched.push_back({upright, whole});
                });
}

BenchTool* StrokeControls::takeTool() {
  const picture::Picture& picture = session_.job().picture;
  parts_->startAt({picture.width() / 2.0, picture.height() / 2.0});
  return parts_;
}

void StrokeControls::showParts() {
  const picture::Picture& picture = session_.job().picture;
  std::vector<Point> places;
  for (const trace::PartSwitch& part : session_.job().trace.strokes.switched)
    places.push_back({part.at.x, picture.height() - part.at.y});
  partsBack_->setText(tr("Put %1 &back").arg(places.size()));
  partsBack_->setVisible(!places.empty());
  parts_->set(std::move(places));
}

void StrokeControls::buildEnds() {
  strokePart_ = new QWidget;
  auto* column = partLayout(strokePart_);
  heal_ = numberField(0, trace::kMostHealPx, 1, 1, tr("px"));
  heal_->setObjectName("heal");
  heal_->setSpecialValueText(tr("none"));
  addRow(column, tr("Heal brea&ks up to"), heal_,
         tr("Where two ends point at each other across a gap, the stroke goes on"));
  ends_ = new QComboBox;
  ends_->setObjectName("strokeEnds");
  ends_->addItems({tr("where the pen stopped"), tr("at the ink's tip")});
  addRow(column, tr("E&nds"), ends_,
         tr("Where a line ends that meets no other: half a width inside the ink, or at its tip"));
  layout()->addWidget(strokePart_);
  connect(heal_, &QDoubleSpinBox::valueChanged, this, [this](double px) {
    session_.edit(tr("Heal breaks"), "heal", [px](job::Job& job) { job.trace.strokes.healPx = px; });
  });
  connect(ends_, &QComboBox::activated, this, [this](int index) {
    session_.edit(tr("Ends %1").arg(ends_->itemText(index)), {},
                  [index](job::Job& job) { job.trace.strokes.ends = static_cast<trace::StrokeEnds>(index); });
  });
}

void StrokeControls::show() {
  const job::Job& job = session_.job();
  // Of several inks the borders between them are traced.
  setVisible(!job.colours.on);
  method_->button(static_cast<int>(job.trace.method))->setChecked(true);
  limitPart_->setVisible(job.trace.method == trace::TraceMethod::Mixed);
  strokePart_->setVisible(job.trace.method != trace::TraceMethod::Outline);
  const QSignalBlocker quiet(heal_);
  heal_->setValue(job.trace.strokes.healPx);
  ends_->setCurrentIndex(static_cast<int>(job.trace.strokes.ends));
  automatic_->setChecked(!job.trace.strokes.limitPx);
  showParts();
  const double found = job.strokes ? job.strokes->limitPx : std::numeric_limits<double>::infinity();
  chart_->show(job.strokes ? job.strokes->widths : std::vector<trace::WidthShare>{},
               job.trace.strokes.limitPx.value_or(found));
}

}  // namespace rim::app
