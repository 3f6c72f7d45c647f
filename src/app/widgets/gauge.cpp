#include "app/widgets/gauge.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QStyle>

#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"

namespace rim::app {

Gauge::Gauge(QWidget* parent) : QFrame(parent) {
  setObjectName("gauge");
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(20, 7, 16, 7);
  row->setSpacing(8);
  outlines_ = addFigure(row, tr("outlines"), tr("How many outlines there are"));
  closed_ = addFigure(row, tr("closed"), tr("Outlines that hold a fill"));
  open_ = addFigure(row, tr("open"), tr("Outlines with loose ends; the lines of a pen are meant to have them"));
  double_ = addFigure(row, tr("double"), tr("Lines that are drawn twice, and would be cut twice"));
  nodes_ = addFigure(row, tr("nodes"), tr("Places where one segment ends and the next begins"));
  row->addStretch(1);
  width_ = addLength(row, tr("&Width"), tr("Width round all outlines. The height follows. Return takes it."));
  height_ = addLength(row, tr("Hei&ght"), tr("Height round all outlines. The width follows. Return takes it."));
  width_->setObjectName("width");
  height_->setObjectName("height");
  connect(width_, &LengthField::entered, this, &Gauge::widthEntered);
  connect(height_, &LengthField::entered, this, &Gauge::heightEntered);
  unit_ = new QPushButton;
  unit_->setObjectName("unit");
  unit_->setAccessibleName(tr("Unit of length"));
  unit_->setToolTip(tr("Change between millimetres and inches (U)"));
  connect(unit_, &QPushButton::clicked, this, &Gauge::unitToggled);
  row->addWidget(unit_);
}

QLabel* Gauge::addFigure(QHBoxLayout* row, const QString& name, const QString& tip) {
  auto* figure = new QLabel;
  figure->setProperty("role", "figure");
  figure->setObjectName(name);
  figure->setAccessibleName(name);
  figure->setToolTip(tip);
  auto* caption = new QLabel(name);
  caption->setProperty("role", "quiet");
  caption->setToolTip(tip);
  row->addWidget(figure);
  row->addWidget(caption);
  row->addSpacing(18);
  return figure;
}

LengthField* Gauge::addLength(QHBoxLayout* row, const QString& name, const QString& tip) {
  auto* label = new QLabel(name);
  auto* field = new LengthField;
  field->setFixedWidth(92);
  field->setToolTip(tip);
  field->setAccessibleName(QString(name).remove('&'));
  label->setBuddy(field);
  row->addWidget(label);
  row->addWidget(field);
  connect(field, &LengthField::refused, this, &Gauge::refused);
  return field;
}

void Gauge::show(const std::optional<Measures>& measures, Unit unit) {
  const auto put = [&measures](QLabel* label, std::size_t value, bool known) {
    label->setText(!measures ? QStringLiteral("–")
                   : known   ? QLocale().toString(static_cast<qulonglong>(value))
                             : QStringLiteral("…"));
  };
  const Counts counts = measures ? measures->counts : Counts{};
  const bool fitted = measures && !measures->provisional;
  put(outlines_, counts.outlines, true);
  put(closed_, counts.closed, true);
  put(open_, counts.open, true);
  put(double_, measures ? measures->doubles.value_or(0) : 0, fitted && measures->doubles);
  put(nodes_, counts.nodes, fitted);
  const auto alarm = [](QLabel* label, bool trouble) {
    label->setProperty("trouble", trouble);
    label->style()->polish(label);
  };
  alarm(open_, counts.open > (measures ? measures->penLines : 0));
  alarm(double_, measures && measures->doubles.value_or(0) > 0);
  const bool measurable = measures && !measures->box.empty();
  width_->show(measurable ? measures->box.width() : -1, unit);
  height_->show(measurable ? measures->box.height() : -1, unit);
  width_->setEnabled(measurable);
  height_->setEnabled(measurable);
  unit_->setText(unitName(unit));
}

}  // namespace rim::app
