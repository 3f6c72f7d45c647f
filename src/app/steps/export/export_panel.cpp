#include "app/steps/export/export_panel.h"

#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/widgets/counted.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

enum Kind { kDxf2000, kDxfR12, kSvg };

}  // namespace

ExportPanel::ExportPanel(QAction* exportAction, const Preferences& preferences, QWidget* parent) : QWidget(parent) {
  QVBoxLayout* layout = panelLayout(this, tr("Export"));
  kind_ = new QComboBox;
  kind_->setObjectName("kind");
  kind_->addItems({tr("DXF (2000)"), tr("DXF (R12)"), tr("SVG")});
  addRow(layout, tr("&File"), kind_, tr("DXF R12 is for old controllers; it knows lines and arcs only."));
  kind_->setCurrentIndex(preferences.exportEnding == "svg" ? kSvg : preferences.dxfR12 ? kDxfR12 : kDxf2000);
  form_ = new QComboBox;
  form_->setObjectName("form");
  addRow(layout, tr("&Made of"), form_, tr("What the outlines in the file are made of"));
  listForms();
  origin_ = new QCheckBox(tr("With the &note of origin"));
  origin_->setObjectName("withOrigin");
  origin_->setToolTip(tr("Writes what the Picture step says about the picture's origin into the file"));
  layout->addWidget(origin_);
  addHeading(layout, tr("What will stand in it"));
  summary_ = addText(layout);
  summary_->setObjectName("summary");
  layout->addSpacing(10);
  button_ = new QPushButton(exportAction->text());
  button_->setObjectName("exportButton");
  button_->setProperty("role", "main");
  connect(button_, &QPushButton::clicked, exportAction, &QAction::trigger);
  connect(exportAction, &QAction::changed, button_, [this, exportAction] {
    button_->setEnabled(exportAction->isEnabled());
    button_->setToolTip(exportAction->toolTip());
  });
  layout->addWidget(button_);
  layout->addStretch(1);
  connect(kind_, &QComboBox::currentIndexChanged, this, [this] {
    listForms();
    emit settingsChanged();
  });
  connect(form_, &QComboBox::currentIndexChanged, this, &ExportPanel::settingsChanged);
}

void ExportPanel::listForms() {
  const QSignalBlocker quiet(form_);
  form_->clear();
  const auto add = [this](const QString& name, CurveForm form) { form_->addItem(name, static_cast<int>(form)); };
  if (kind_->currentIndex() == kSvg) add(tr("lines and curves"), CurveForm::Beziers);
  add(tr("lines and arcs"), CurveForm::Arcs);
  add(tr("straight lines"), CurveForm::Lines);
  if (kind_->currentIndex() == kDxf2000) add(tr("lines and splines"), CurveForm::Beziers);
}

FileKind ExportPanel::kind() const { return kind_->currentIndex() == kSvg ? FileKind::Svg : FileKind::Dxf; }

ExportSettings ExportPanel::settings() const {
  ExportSettings settings;
  settings.curves = static_cast<CurveForm>(form_->currentData().toInt());
  settings.dxf = kind_->currentIndex() == kDxfR12 ? DxfVersion::R12 : DxfVersion::Dxf2000;
  settings.withOrigin = origin_->isChecked() && origin_->isEnabled();
  return settings;
}

void ExportPanel::show(const Session& session, Unit unit) {
  origin_->setEnabled(!session.job().origin.empty());
  if (!session.hasWork() || !session.upToDate()) {
    summary_->setText(session.hasWork() ? tr("Tracing…") : tr("Nothing yet: open a picture or a drawing first."));
    return;
  }
  const Drawing drawing = drawingFor(session.job(), kind(), settings());
  const Counts counts = countsOf(pathsOf(drawing));
  const Box box = boxOf(pathsOf(drawing));
  if (counts.outlines == 0) {
    summary_->setText(tr("No outlines: there is nothing to write."));
    return;
  }
  QStringList segments;
  if (counts.lines > 0) segments << counted(counts.lines, tr("1 line"), tr("%1 lines"));
  if (counts.arcs > 0) segments << counted(counts.arcs, tr("1 arc"), tr("%1 arcs"));
  if (counts.curves > 0) segments << counted(counts.curves, tr("1 curve"), tr("%1 curves"));
  summary_->setText(tr("%1, %2 open\n%3\n%4 × %5\n%6 of cutting line")
                        .arg(counted(counts.closed, tr("1 closed outline"), tr("%1 closed outlines")))
                        .arg(counts.open)
                        .arg(segments.join(", "), lengthText(box.width(), unit), lengthWithUnit(box.height(), unit),
                             lengthWithUnit(std::round(totalLength(pathsOf(drawing)) * 10) / 10, unit)));
}

QString ExportPanel::stateLine(const Session& session, Unit unit) const {
  if (!session.hasWork()) return tr("nothing yet");
  const Drawing drawing = drawingOf(session.shown());
  const Box box = boxOf(pathsOf(drawing));
  if (box.empty()) return tr("no outlines");
  const auto rounded = [unit](double mm) {
    return QString::number(unit == Unit::Inch ? mm / kMmPerInch : mm, 'f', unit == Unit::Inch ? 2 : 1);
  };
  return tr("%1 × %2 %3").arg(rounded(box.width()), rounded(box.height()), unitName(unit));
}

}  // namespace rim::app
