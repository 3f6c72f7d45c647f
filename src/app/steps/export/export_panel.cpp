#include "app/steps/export/export_panel.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSaveFile>
#include <QStyle>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/export/drag_out.h"
#include "app/steps/export/export_room.h"
#include "app/steps/export/file_form.h"
#include "app/widgets/counted.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"
#include "core/io/deliver.h"

namespace rim::app {

ExportPanel::ExportPanel(const Session& session, const ExportActions& actions, QWidget* parent)
    : QWidget(parent), session_(session) {
  QVBoxLayout* column = panelLayout(this, tr("Export"));
  form_ = new FileForm;
  column->addWidget(form_);
  connect(form_, &FileForm::wished, this, &ExportPanel::wished);
  connect(form_, &FileForm::refused, this, &ExportPanel::refused);
  addHeading(column, tr("What will stand in it"));
  summary_ = addText(column);
  summary_->setObjectName("summary");
  warnings_ = addText(column);
  warnings_->setObjectName("warnings");
  warnings_->setProperty("trouble", true);
  column->addSpacing(10);
  buildButtons(actions);
  buildReceipt();
  column->addStretch(1);
}

void ExportPanel::buildButtons(const ExportActions& actions) {
  auto* column = static_cast<QVBoxLayout*>(layout());
  QPushButton* button = buttonFor(actions.exportFile);
  button->setObjectName("exportButton");
  button->setProperty("role", "main");
  column->addWidget(button);
  auto* row = new QHBoxLayout;
  row->addWidget(buttonFor(actions.copyDrawing));
  drag_ = new DragOut(session_);
  connect(drag_, &DragOut::refused, this, &ExportPanel::refused);
  row->addWidget(drag_, 1);
  column->addLayout(row);
  column->addWidget(buttonFor(actions.sketch));
}

void ExportPanel::buildReceipt() {
  receiptPart_ = new QWidget;
  receiptPart_->setObjectName("receipt");
  auto* receipt = partLayout(receiptPart_, 14);
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
  layout()->addWidget(receiptPart_);
}

void ExportPanel::showReceipt(const QString& file, std::shared_ptr<const io::Receipt> receipt, Unit unit) {
  receiptOf_ = file;
  receipt_ = std::move(receipt);
  receiptPart_->setVisible(receipt_ != nullptr);
  if (!receipt_) return;
  const io::Receipt& r = *receipt_;
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
  const auto size = [unit](double mm) { return QString::fromStdString(mend::sizeText(mm, unit)); };
  constexpr double kSeenMm = 0.0005;
  if (r.deviationMm && *r.deviationMm < kSeenMm) {
    lines << tr("exactly where the outlines are");
  } else if (r.deviationMm) {
    lines << tr("nowhere more than %1 from the outlines").arg(size(*r.deviationMm));
  }
  if (r.freePieces > 0)
    lines << counted(r.freePieces, tr("1 piece falls out of the sheet"), tr("%1 pieces fall out of the sheet"));
  const auto link = [&size](const char* name, const refine::Across& across) {
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
  const QByteArray text = QByteArray::fromStdString(io::receiptText(*receipt_));
  if (file.open(QIODevice::WriteOnly) && file.write(text) == text.size() && file.commit()) {
    emit told(tr("%1 is written.").arg(QFileInfo(name).fileName()));
  } else {
    emit refused(tr("%1: %2").arg(QFileInfo(name).fileName(), file.errorString()));
  }
}

job::FileWish ExportPanel::wish() const { return session_.job().file.value_or(lastFileWish()); }

void ExportPanel::show(Unit unit) {
  unit_ = unit;
  const auto outlines = session_.upToDate() && session_.hasWork() ? job::outlinesOf(session_.job()) : nullptr;
  const job::Job& job = session_.job();
  const double toleranceMm = session_.hasWork() ? io::exportToleranceMm(job, {}) : 0;
  form_->show(wish(),
              {outlines && outlines->layers.size() > 1, !job.origin.empty(), job.stock.has_value(), toleranceMm}, unit);
  if (!isVisible()) return;
  measureThin(outlines);
  showSummary(unit);
}

QStringList ExportPanel::warnings() const {
  QStringList all;
  const job::Job& job = session_.job();
  const Drawing drawing = job::drawingOf(job);
  const Counts counts = countsOf(pathsOf(drawing));
  const std::size_t open = counts.open - std::min(counts.open, openPenLines(drawing));
  if (open > 0)
    all << counted(open, tr("1 outline is open: a machine cannot cut it out."),
                   tr("%1 outlines are open: a machine cannot cut them out."));
  if (const auto& findings = session_.findings(); findings && !findings->empty())
    all << counted(findings->size(), tr("1 finding is left in the Mend step."),
                   tr("%1 findings are left in the Mend step."));
  QStringList hidden;
  for (const std::string& name : refine::hiddenLayers(job.refine)) hidden << QString::fromStdString(name);
  if (!hidden.isEmpty()) all << tr("Left out, as it is hidden: %1.").arg(hidden.join(", "));
  constexpr double kLeastPxPerMm = 2;
  const double k = job::mmPerPixel(job);
  if (!job.drawing && 1 / k < kLeastPxPerMm)
    all << tr("Only %1 px stand behind a millimetre of this size; small things are not known better than that.")
               .arg(1 / k, 0, 'f', 1);
  return all + sizeWarnings(drawing);
}

QStringList ExportPanel::sizeWarnings(const Drawing& drawing) const {
  QStringList all;
  if (const auto& stock = session_.job().stock) {
    constexpr double kSeenMm = 0.001;
    const Box box = boxOf(drawing);
    const Box sheet = job::boxOf(*stock);
    const double over = std::max(
        {sheet.low.x - box.low.x, sheet.low.y - box.low.y, box.high.x - sheet.high.x, box.high.y - sheet.high.y});
    if (!box.empty() && over > kSeenMm)
      all << tr("The outlines reach beyond the stock by %1.").arg(lengthWithUnit(std::ceil(over * 100) / 100, unit_));
  }
  const double cutter = wish().cutterMm;
  if (!thin_ || cutter <= 0) return all;
  const auto size = [this](double mm) { return QString::fromStdString(mend::sizeText(mm, unit_)); };
  const auto at = [this](const refine::Across& across) {
    return lengthText(across.at.x, unit_) + ", " + lengthWithUnit(across.at.y, unit_);
  };
  if (thin_->web && thin_->web->mm < cutter)
    all << tr("A web of %1 (at %2) is thinner than the cutter, %3 wide.")
               .arg(size(thin_->web->mm), at(*thin_->web), size(cutter));
  if (thin_->gap && thin_->gap->mm < cutter)
    all << tr("The cutter, %1 wide, does not get into a gap of %2 (at %3).")
               .arg(size(cutter), size(thin_->gap->mm), at(*thin_->gap));
  return all;
}

void ExportPanel::measureThin(const std::shared_ptr<const Drawing>& outlines) {
  const double at = outlines ? job::mmPerPixel(session_.job()) : 0;
  const bool wanted = outlines && wish().cutterMm > 0 && isVisible();
  if (!wanted || (outlines == thinOf_ && at == thinAt_)) return;
  thinOf_ = outlines;
  thinAt_ = at;
  thin_.reset();
  thinning_.begin(
      this,
      [drawing = job::drawingOf(session_.job())](const std::stop_token& stop) {
        return refine::thinPlaces(drawing, stop);
      },
      [this](const Outcome<refine::ThinPlaces>& outcome) {
        if (outcome.trouble.isEmpty()) thin_ = outcome.result;
        showSummary(unit_);
      });
}

void ExportPanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  show(unit_);
}

void ExportPanel::showSummary(Unit unit) {
  warnings_->hide();
  if (!session_.hasWork() || !session_.upToDate()) {
    summary_->setText(session_.hasWork() ? tr("Tracing…") : tr("Nothing yet: open a picture or a drawing first."));
    return;
  }
  const job::FileWish wanted = wish();
  const bool dxf = io::endingFor(wanted.format) == ".dxf";
  const Drawing drawing =
      io::drawingFor(session_.job(), dxf ? io::FileKind::Dxf : io::FileKind::Svg, io::settingsFor(wanted));
  const Counts counts = countsOf(pathsOf(drawing));
  const Box box = boxOf(drawing);
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
  const QStringList sentences = warnings();
  warnings_->setText(sentences.join("\n"));
  warnings_->setVisible(!sentences.isEmpty());
}

QString ExportPanel::stateLine(const Session& session, Unit unit) {
  if (!session.hasWork()) return tr("nothing yet");
  const Box box = job::outlinesBoxOf(session.shown());
  if (box.empty()) return tr("no outlines");
  const auto rounded = [unit](double mm) {
    return QString::number(unit == Unit::Inch ? mm / kMmPerInch : mm, 'f', unit == Unit::Inch ? 2 : 1);
  };
  return tr("%1 × %2 %3").arg(rounded(box.width()), rounded(box.height()), unitName(unit));
}

}  // namespace rim::app
