#include "app/widgets/job_card.h"

#include <QButtonGroup>
#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>

#include "app/look.h"

namespace rim::app {

StepRow::StepRow(const QString& name, const QString& what, QWidget* parent) : QAbstractButton(parent) {
  setText(name);
  setAccessibleName(name);
  setToolTip(what);
  setCheckable(true);
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void StepRow::setState(const QString& line, bool complete) {
  state_ = line;
  complete_ = complete;
  setAccessibleDescription(line);
  update();
}

void StepRow::paintEvent(QPaintEvent*) {
  const Look& l = look();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF area = QRectF(rect()).adjusted(8, 4, 0, -4);
  if (isChecked()) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(l.raised);
    painter.drawRect(area);
    painter.fillRect(QRectF(area.left(), area.top(), 3, area.height()), l.accent);
  }
  if (hasFocus() || underMouse()) {
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(hasFocus() ? l.accent : l.line, 1));
    painter.drawRect(area.adjusted(0.5, 0.5, -0.5, -0.5));
  }
  const QRectF ring(area.left() + 14, area.center().y() - 9, 18, 18);
  QPen pen(complete_ ? l.good : l.quiet, 3);
  pen.setCapStyle(Qt::FlatCap);
  painter.setPen(pen);
  painter.setBrush(complete_ ? QBrush(l.fill) : QBrush(Qt::NoBrush));
  if (complete_) {
    painter.drawEllipse(ring);
  } else {
    painter.drawArc(ring, 65 * 16, 290 * 16);
  }
  const double left = ring.right() + 11;
  painter.setPen(l.text);
  painter.setFont(fontLike(1, QFont::Bold));
  painter.drawText(QRectF(left, area.top() + 6, width() - left - 4, 22), Qt::AlignVCenter, text());
  painter.setPen(l.quiet);
  painter.setFont(fontLike(-1));
  const QString line = painter.fontMetrics().elidedText(state_, Qt::ElideRight, static_cast<int>(width() - left - 6));
  painter.drawText(QRectF(left, area.top() + 28, width() - left - 4, 20), Qt::AlignVCenter, line);
}

void StepRow::enterEvent(QEnterEvent*) { update(); }
void StepRow::leaveEvent(QEvent*) { update(); }

JobCard::JobCard(QWidget* parent) : QFrame(parent), group_(new QButtonGroup(this)) {
  setObjectName("jobCard");
  setFixedWidth(176);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 14, 0, 12);
  layout->setSpacing(2);
  auto* heading = new QLabel(tr("Job"));
  heading->setProperty("role", "title");
  heading->setContentsMargins(16, 0, 0, 6);
  layout->addWidget(heading);
  layout->addStretch(1);
  connect(group_, &QButtonGroup::idClicked, this, &JobCard::chosen);
}

void JobCard::addStep(const QString& name, const QString& what) {
  auto* row = new StepRow(name, what, this);
  row->setObjectName("step:" + name);
  group_->addButton(row, count());
  static_cast<QVBoxLayout*>(layout())->insertWidget(layout()->count() - 1, row);
  rows_.push_back(row);
}

int JobCard::chosenStep() const { return group_->checkedId(); }

void JobCard::choose(int index) {
  step(index)->setChecked(true);
  emit chosen(index);
}

}  // namespace rim::app
