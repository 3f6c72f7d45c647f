#include "app/steps/export/export_panel.h"

#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QSaveFile>
#include <QSignalBlocker>
#include <QStyle>
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
  receiptPart_ = new QWidget;
  receiptPart_->setObjectName("receipt");
  auto* receipt = new QVBoxLayout(receiptPart_);
  receipt->setContentsMargins(0, 14, 0, 0);
  addHeading(receipt, tr("Receipt: what is in the file"));
  receiptTitle_ = addText(receipt);
  receiptTitle_->setObjectName("receiptTitle");
  QFont bold = receiptTitle_->font();
  bold.setBold(true);
  receiptTitle_->setFont(bold);
  receiptText_ = addText(receipt);
  receiptText_->setObjectName("receiptText");
  receiptText_->setTextFormat(Qt::RichText);
  receiptText_->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
  connect(receiptText_, &QLabel::linkActivated, this, &ExportPanel::follow);
  saveReceipt_ = new QPushButton(tr("&Save the receipt beside the file"));
  saveReceipt_->setObjectName("saveReceipt");
  saveReceipt_->setToolTip(tr("Writes it as text, named like the file"));
  connect(saveReceipt_, &QPushButton::clicked, this, &ExportPanel::saveReceipt);
  receipt->addWidget(saveReceipt_);
  receiptPart_->hide();
  layout->addWidget(receiptPart_);
  layout->addStretch(1);
  connect(kind_, &QComboBox::currentIndexChanged, this, [this] {
    listForms();
    emit settingsChanged();
  });
  connect(form_, &QComboBox::currentIndexChanged, this, &ExportPanel::settingsChanged);
}

void ExportPanel::showReceipt(const QString& file, std::shared_ptr<const Receipt> receipt, Unit unit) {
  receiptOf_ = file;
  receipt_ = std::move(receipt);
  receiptPart_->setVisible(receipt_ != nullptr);
  if (!receipt_) return;
  const Receipt& r = *receipt_;
  receiptTitle_->setText((r.clean ? tr("✓ %1 is clean.") : tr("✗ %1 is not clean.")).arg(QFileInfo(file).fileName()));
  receiptTitle_->setProperty("trouble", !r.clean);
  receiptTitle_->style()->polish(receiptTitle_);
  QStringList lines;
  for (const std::string& remark : r.remarks) lines << "<b>" + QString::fromStdString(remark).toHtmlEscaped() + "</b>";
  if (!r.clean) lines << QStringLiteral("<a href=\"mend\">%1</a>").arg(tr("Back to the Mend step"));
  lines << tr("%1, unit %2").arg(QString::fromStdString(r.format), QString::fromStdString(r.unit));
  lines << tr("%1 closed, %2 open, %3 doubled, %4 crossing")
               .arg(r.counts.closed)
               .arg(r.counts.open)
               .arg(r.doubled)
               .arg(r.crossing);
  lines << tr("%1 nodes: %2 lines, %3 arcs, %4 curves")
               .arg(r.counts.nodes)
               .arg(r.counts.lines)
               .arg(r.counts.arcs)
               .arg(r.counts.curves);
  lines << tr("%1 × %2").arg(lengthText(r.boxMm.width(), unit), lengthWithUnit(r.boxMm.height(), unit));
  const auto size = [unit](double mm) { return QString::fromStdString(sizeText(mm, unit)); };
  constexpr double kSeenMm = 0.0005;
  if (r.deviationMm && *r.deviationMm < kSeenMm) {
    lines << tr("exactly where the outlines are");
  } else if (r.deviationMm) {
    lines << tr("nowhere more than %1 from the outlines").arg(size(*r.deviationMm));
  }
  if (r.freePieces > 0)
    lines << counted(r.freePieces, tr("1 piece falls out of the sheet"), tr("%1 pieces fall out of the sheet"));
  const auto link = [&size](const char* name, const Across& across) {
    return QStringLiteral("<a href=\"%1\">%2</a>").arg(name, size(across.mm));
  };
  if (r.thin.web) lines << tr("thinnest web %1").arg(link("web", *r.thin.web));
  if (r.thin.gap) lines << tr("smallest gap %1").arg(link("gap", *r.thin.gap));
  receiptText_->setText(lines.join("<br>"));
}

void ExportPanel::follow(const QString& link) {
  if (!receipt_) return;
  if (link == "mend") emit mendingWanted();
  if (link == "web" && receipt_->thin.web) emit placeWanted(receipt_->thin.web->at);
  if (link == "gap" && receipt_->thin.gap) emit placeWanted(receipt_->thin.gap->at);
}

void ExportPanel::saveReceipt() {
  if (!receipt_) return;
  const QFileInfo info(receiptOf_);
  const QString name = info.path() + "/" + info.fileName() + ".receipt.txt";
  QSaveFile file(name);
  const QByteArray text = QByteArray::fromStdString(receiptText(*receipt_));
  if (file.open(QIODevice::WriteOnly) && file.write(text) == text.size() && file.commit()) {
    emit told(tr("%1 is written.").arg(QFileInfo(name).fileName()));
  } else {
    emit refused(tr("%1: %2").arg(QFileInfo(name).fileName(), file.errorString()));
  }
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
