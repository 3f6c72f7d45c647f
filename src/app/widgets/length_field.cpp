#include "app/widgets/length_field.h"

#include <QKeyEvent>

#include "app/widgets/length_text.h"
#include "core/job/job.h"

namespace rim::app {

LengthField::LengthField(QWidget* parent)
    : QLineEdit(parent), least_(job::kSmallestSizeMm), most_(job::kLargestSizeMm) {
  setAlignment(Qt::AlignRight);
  connect(this, &QLineEdit::editingFinished, this, &LengthField::finish);
}

void LengthField::setRange(double leastMm, double mostMm) {
  least_ = leastMm;
  most_ = mostMm;
}

void LengthField::show(double millimetres, Unit unit) {
  millimetres_ = millimetres;
  unit_ = unit;
  if (!(hasFocus() && isModified())) restore();
}

void LengthField::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && isModified()) {
    restore();
    return;
  }
  QLineEdit::keyPressEvent(event);
}

void LengthField::finish() {
  if (!isModified()) return;
  const QString typed = text();
  const QString bare = typed.trimmed();
  const bool negative = least_ < 0 && (bare.startsWith('-') || bare.startsWith(QChar(0x2212)));
  auto wanted = millimetresFrom(negative ? bare.mid(1) : bare, unit_);
  if (wanted && negative) wanted = -*wanted;
  restore();
  if (!wanted) {
    emit refused(tr("\"%1\" is no length. Type a number, with mm, cm or in behind it if you like: 80, 3 1/2 in.")
                     .arg(typed.trimmed()));
  } else if (*wanted < least_ || *wanted > most_) {
    emit refused(tr("%1 is out of range. Here it may be from %2 to %3.")
                     .arg(lengthWithUnit(*wanted, unit_), lengthWithUnit(least_, unit_), lengthWithUnit(most_, unit_)));
  } else {
    emit entered(*wanted);
  }
}

void LengthField::restore() {
  setText(millimetres_ < 0 && least_ >= 0 ? QString() : lengthText(millimetres_, unit_));
  setModified(false);
}

}  // namespace rim::app
