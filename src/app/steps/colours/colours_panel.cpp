#include "app/steps/colours/colours_panel.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSpinBox>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/colours/colours_room.h"
#include "app/steps/colours/decision_list.h"
#include "app/steps/colours/ink_board.h"
#include "app/steps/colours/ink_text.h"
#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

constexpr std::size_t kMostSuggestions = 2;

QVBoxLayout* column(QWidget* widget) { return static_cast<QVBoxLayout*>(widget->layout()); }

std::size_t keptInks(const job::Job& job) {
  std::size_t kept = 0;
  for (std::size_t i = 0; i < job.inks->inks.size(); ++i) {
    const bool there = !job.inkShares || (*job.inkShares)[i].pixels > 0;
    kept += there && job.inks->inks[i].role == colour::InkRole::Keep ? 1 : 0;
  }
  return kept;
}

std::size_t allInks(const job::Job& job) {
  std::size_t all = 0;
  for (std::size_t i = 0; i < job.inks->inks.size(); ++i)
    all += !job.inkShares || (*job.inkShares)[i].pixels > 0 ? 1 : 0;
  return all;
}

}  // namespace

ColoursPanel::ColoursPanel(Session& session, const ColoursActions& actions, QWidget* parent)
    : QWidget(parent), session_(session), actions_(actions), tool_(new SweepTool(this)) {
  QVBoxLayout* rows = panelLayout(this, tr("Colours"));
  rows->addWidget(buttonFor(actions.severalInks));
  begin_ = addText(rows);
  begin_->setObjectName("twoTones");
  // The light part taken as the ink is a sheet in which the dark shapes are openings.
  openings_ = new QPushButton(tr("The dark shapes are openings"));
  openings_->setObjectName("openings");
  openings_->setCheckable(true);
  openings_->setToolTip(tr("Take the light part of the picture as the ink"));
  connect(openings_, &QPushButton::clicked, this, [this](bool on) { takeLightAsInk(session_, on); });
  rows->addWidget(openings_);
  several_ = new QWidget;
  auto* inner = new QVBoxLayout(several_);
  inner->setContentsMargins(0, 0, 0, 0);
  inner->setSpacing(8);
  rows->addWidget(several_);
  buildInks(actions);
  buildSweep(actions);
  buildLayout();
  listHeading_ = addHeading(inner, tr("What was decided"));
  list_ = new DecisionList;
  list_->setObjectName("decisionList");
  connect(list_, &DecisionList::changed, this, [this](const std::vector<colour::InkStep>& steps, const QString& name) {
    session_.edit(name, {}, [&steps](job::Job& job) { job.colours.steps = steps; });
  });
  inner->addWidget(list_);
  opens_ = new QCheckBox(tr("Open coloured pictures like this"));
  opens_->setObjectName("opensInInks");
  opens_->setToolTip(tr("Begin flat artwork in colours with several inks; black on white always begins in two tones"));
  connect(opens_, &QCheckBox::toggled, this, &ColoursPanel::opensInInksChanged);
  rows->addWidget(opens_);
  rows->addStretch(1);
  connect(tool_, &SweepTool::swept, this, &ColoursPanel::sweepDone);
  connect(&session_, &Session::inksFound, this, &ColoursPanel::show);
}

void ColoursPanel::buildInks(const ColoursActions& actions) {
  QVBoxLayout* rows = column(several_);
  addHeading(rows, tr("Inks"));
  auto* row = new QHBoxLayout;
  automatic_ = new QPushButton(tr("As many as there are"));
  automatic_->setObjectName("automaticInks");
  automatic_->setCheckable(true);
  automatic_->setToolTip(tr("As many inks as are clearly apart"));
  connect(automatic_, &QPushButton::clicked, this, [this](bool on) {
    session_.edit(on ? tr("As many inks as there are") : tr("Number of inks"), {}, [this, on](job::Job& job) {
      job.colours.count = on ? std::optional<int>() : std::optional<int>(count_->value());
    });
  });
  count_ = new QSpinBox;
  count_->setObjectName("inkCount");
  count_->setRange(2, colour::kMostInks);
  count_->setKeyboardTracking(false);
  count_->setAccessibleName(tr("Number of inks"));
  count_->setToolTip(tr("So many inks, the background counted. Decisions below are kept"));
  connect(count_, &QSpinBox::valueChanged, this, [this](int count) {
    session_.edit(tr("Number of inks"), "inkCount", [count](job::Job& job) { job.colours.count = count; });
  });
  row->addWidget(automatic_, 1);
  row->addWidget(count_);
  rows->addLayout(row);
  board_ = new InkBoard;
  connect(board_, &InkBoard::wanted, this, &ColoursPanel::decide);
  connect(board_, &InkBoard::hovered, this, &ColoursPanel::hovered);
  rows->addWidget(board_);
  suggestions_ = new QVBoxLayout;
  rows->addLayout(suggestions_);
  actions.mergeLikest->setEnabled(false);
}

void ColoursPanel::buildSweep(const ColoursActions& actions) {
  QVBoxLayout* rows = column(several_);
  addHeading(rows, tr("Sweep together"));
  auto* row = new QHBoxLayout;
  row->addWidget(buttonFor(actions.sweep), 1);
  sweepSize_ = new QSpinBox;
  sweepSize_->setObjectName("sweepSize");
  sweepSize_->setRange(1, 99);
  sweepSize_->setValue(3);
  sweepSize_->setSuffix(tr(" px"));
  sweepSize_->setAccessibleName(tr("Width of the sweep"));
  sweepSize_->setToolTip(tr("How wide the sweep is"));
  row->addWidget(sweepSize_);
  rows->addLayout(row);
  connected_ = new QCheckBox(tr("Only where connected"));
  connected_->setObjectName("sweepConnected");
  connected_->setToolTip(tr("Only the parts that the sweep touches, not their ink all over the picture"));
  rows->addWidget(connected_);
  const auto set = [this] { tool_->set(sweepSize_->value() / 2, connected_->isChecked()); };
  connect(sweepSize_, &QSpinBox::valueChanged, this, set);
  connect(connected_, &QCheckBox::toggled, this, set);
  set();
}

void ColoursPanel::buildLayout() {
  QVBoxLayout* rows = column(several_);
  addHeading(rows, tr("What is made of them"));
  layout_ = new QComboBox;
  layout_->setObjectName("layout");
  layout_->addItems({tr("One silhouette"), tr("Each ink cut out"), tr("Every border once")});
  layout_->setAccessibleName(tr("What is made of the inks"));
  layout_->setToolTip(
      tr("One outline round everything kept; each ink on its own layer, common borders exactly alike; or "
         "every border a single time, so nothing is cut twice"));
  connect(layout_, &QComboBox::activated, this, [this](int index) {
    session_.edit(layout_->itemText(index), {},
                  [index](job::Job& job) { job.colours.layout = static_cast<trace::InkLayout>(index); });
  });
  rows->addWidget(layout_);
  made_ = addText(rows);
  made_->setObjectName("made");
}

bool ColoursPanel::opensInInks() const { return opens_->isChecked(); }

void ColoursPanel::setOpensInInks(bool on) { opens_->setChecked(on); }

void ColoursPanel::setSeveralInks(bool on) {
  session_.edit(on ? tr("Several inks") : tr("Two tones"), {}, [on](job::Job& job) { job.colours.on = on; });
}

void ColoursPanel::setSweeping(bool on) {
  if (on) placeTool();
  emit toolChanged(on ? tool_ : nullptr);
}

void ColoursPanel::placeTool() {
  const picture::Picture& picture = session_.job().picture;
  tool_->startAt({picture.width() / 2.0, picture.height() / 2.0});
}

void ColoursPanel::decide(const colour::InkDecision& decision) {
  const auto& inks = session_.job().inks;
  if (!inks) return;
  session_.edit(decisionName(decision, inks->inks), {},
                [&decision](job::Job& job) { job.colours.steps.push_back(colour::stepFor(decision)); });
}

void ColoursPanel::sweepDone(const colour::SweepInks& sweep) { decide(sweep); }

void ColoursPanel::mergeLikest() {
  const job::Job& job = session_.job();
  if (!job.inks || !job.inkShares) return;
  const auto pairs = colour::likeInks(job.inks->inks, *job.inkShares);
  if (!pairs.empty()) decide(colour::MergeInks{pairs.front().other, pairs.front().one});
}

void ColoursPanel::showSuggestions() {
  for (QWidget* row : suggestionRows_) row->deleteLater();
  suggestionRows_.clear();
  const job::Job& job = session_.job();
  const auto pairs =
      job.inks && job.inkShares ? colour::likeInks(job.inks->inks, *job.inkShares) : std::vector<colour::LikeInks>();
  allow(actions_.mergeLikest, !pairs.empty(), tr("All inks are clearly apart."));
  for (std::size_t i = 0; i < std::min(pairs.size(), kMostSuggestions); ++i) {
    const colour::LikeInks& pair = pairs[i];
    const auto name = [&job](std::size_t ink) { return inkName(job.inks->inks[ink]); };
    auto* row = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* text = new QLabel(
        tr("%1 and %2 differ by only %3.").arg(name(pair.other), name(pair.one)).arg(pair.difference, 0, 'f', 0));
    text->setWordWrap(true);
    text->setTextFormat(Qt::PlainText);
    text->setProperty("role", "quiet");
    text->setToolTip(tr("A difference of 1 is just to be seen side by side, one of 100 is black against white"));
    auto* button = new QPushButton(tr("Merge"));
    button->setObjectName("mergeSuggested");
    button->setToolTip(tr("Merge %1 into %2").arg(name(pair.other), name(pair.one)));
    connect(button, &QPushButton::clicked, this, [this, pair] { decide(colour::MergeInks{pair.other, pair.one}); });
    line->addWidget(text, 1);
    line->addWidget(button);
    suggestions_->addWidget(row);
    suggestionRows_.push_back(row);
  }
}

/// Two tones, counted: what is dark may be the parts, or openings in one sheet.
/// Counted once: the panel is told of every step, and a tracing may be large.
const trace::PartsAndHoles& ColoursPanel::partsOf(const std::shared_ptr<const Drawing>& tracing) {
  if (countedOf_ != tracing) parts_ = trace::partsAndHoles(pathsOf(*tracing));
  countedOf_ = tracing;
  return parts_;
}

void ColoursPanel::showTwoTones() {
  const job::Job& job = session_.job();
  QString text =
      tr("The picture is parted into ink and paper by the threshold of the Trace step. Several inks part it by "
         "its colours.");
  if (job.tracing) {
    const trace::PartsAndHoles& count = partsOf(job.tracing);
    text += "\n\n" + tr("As it is: %1 with %2.")
                         .arg(counted(count.parts, tr("1 part"), tr("%1 parts")),
                              job.trace.lightIsInk ? counted(count.holes, tr("1 opening"), tr("%1 openings"))
                                                   : counted(count.holes, tr("1 hole"), tr("%1 holes")));
  }
  begin_->setText(text);
}

/// The question that people stumble over: are these the parts, or the openings?
void ColoursPanel::showMade() {
  const job::Job& job = session_.job();
  if (!job.tracing || !job.inks) return;
  const trace::PartsAndHoles& count = partsOf(job.tracing);
  QString text =
      tr("%1 with %2")
          .arg(counted(count.parts, tr("1 part"), tr("%1 parts")), counted(count.holes, tr("1 hole"), tr("%1 holes")));
  if (job.colours.layout == trace::InkLayout::Silhouette) {
    text +=
        tr("; or, the other way round, %1 in one sheet.").arg(counted(count.parts, tr("1 opening"), tr("%1 openings")));
  } else if (job.colours.layout == trace::InkLayout::CutOut) {
    text += tr(" on %1.").arg(counted(job.tracing->layers.size(), tr("1 layer"), tr("%1 layers")));
  } else {
    const std::size_t lines = countsOf(pathsOf(*job.tracing)).open;
    text += tr(", and %1 between them, each drawn once.").arg(counted(lines, tr("1 line"), tr("%1 lines")));
  }
  made_->setText(text);
}

void ColoursPanel::show() {
  const job::Job& job = session_.job();
  setEnabled(session_.hasPicture());
  const bool several = job.colours.on;
  several_->setVisible(several);
  openings_->setVisible(!several);
  openings_->setChecked(job.trace.lightIsInk);
  if (several) begin_->setText(tr("Hover an ink to see where it is. Hold P for the picture."));
  if (!several) {
    showTwoTones();
    shown_.reset();
    return;
  }
  if (!job.inks || !job.inkShares) return;
  {
    const QSignalBlocker quiet(count_);
    count_->setValue(job.colours.count.value_or(static_cast<int>(job.inks->inks.size())));
  }
  automatic_->setChecked(!job.colours.count);
  layout_->setCurrentIndex(static_cast<int>(job.colours.layout));
  if (shown_ != job.inks) {
    shown_ = job.inks;
    board_->show(*job.inks, *job.inkShares);
    showSuggestions();
  }
  list_->show(job.colours.steps, job.inks->inks);
  listHeading_->setVisible(!job.colours.steps.empty());
  showMade();
}

QString ColoursPanel::stateLine(const Session& session) {
  if (!session.hasPicture()) return tr("waits for a picture");
  const job::Job& job = session.job();
  if (!job.colours.on) return tr("two tones");
  if (!job.inks) return tr("looking…");
  return tr("%1 of %2 inks kept").arg(keptInks(job)).arg(allInks(job));
}

}  // namespace rim::app
