// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/decide/decide_view.h"

#include "app/decide/gate_board.h"
#include "app/decide/offered_needs.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>
#include <QShowEvent>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr std::size_t kMostSettlings = 4; ///< offered at a time, of the best placed candidates first
constexpr int kNumberWidth = 74;
constexpr int kWidestNumber = 92;
constexpr int kNeedNameWidth = 80;
constexpr int kMustWidth = 72;

} // namespace

DecideView::DecideView(ProjectSession &session, DecidePresenter &presenter, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter)
{
    setObjectName(QStringLiteral("decideView"));
    // It has the rack's place as well; a window need not be as wide as rack and this together.
    constexpr int kLeastWidth = 520;
    setMinimumWidth(kLeastWidth);
    m_board = new GateBoard(presenter);
    auto *scroll = new QScrollArea;
    scroll->setObjectName(QStringLiteral("gateScroll"));
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(m_board);
    auto *lower = new QWidget;
    auto *halves = new QHBoxLayout(lower);
    halves->setContentsMargins(0, 0, 0, 0);
    halves->setSpacing(18);
    halves->addWidget(createNeeds(), 4);
    halves->addWidget(createReasons(), 3);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(14, 8, 14, 10);
    layout->setSpacing(8);
    layout->addWidget(createHead());
    layout->addWidget(scroll, 3);
    m_key = softLabel(tr("● measured here   ◐ data sheet   ○ usual for the polymer   ? nothing known · right "
                         "of the gate is the good side"));
    layout->addWidget(m_key);
    layout->addWidget(lower, 2);
    connect(&presenter, &DecidePresenter::changed, this, &DecideView::refresh);
    connect(&presenter, &DecidePresenter::needsChanged, this, &DecideView::buildNeeds);
    buildNeeds();
    refresh();
}

QWidget *DecideView::createHead()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    auto *row = new QHBoxLayout;
    m_part = lineEdit("decidePart", tr("The part"), tr("the part, e.g. holder of two shafts"));
    m_part->setMinimumWidth(150);
    m_templates = comboBox("decideTemplate", tr("A usual part to begin with"));
    m_templates->addItem(tr("begin with a usual part…"));
    for (const NeedTemplate &part : needTemplates())
        m_templates->addItem(QString::fromUtf8(part.name.data(), qsizetype(part.name.size())));
    m_templates->setMinimumContentsLength(22);
    m_scope = comboBox("decideScope", tr("Candidates"));
    m_scope->addItems({tr("rails of this study"), tr("rails of all studies")});
    m_scope->setMinimumContentsLength(18);
    row->addWidget(new QLabel(tr("Part")));
    row->addWidget(m_part, 1);
    row->addWidget(m_templates);
    row->addWidget(new QLabel(tr("Candidates")));
    row->addWidget(m_scope);
    m_tell = button("decideTell", tr("Tell…"));
    m_tell->setToolTip(tr("Report or card of this decision"));
    row->addWidget(m_tell);
    connect(m_tell, &QPushButton::clicked, this, &DecideView::tellRequested);
    layout->addLayout(row);
    m_headline = heading({});
    m_headline->setObjectName(QStringLiteral("decideHeadline"));
    m_sentences = new QLabel;
    m_sentences->setObjectName(QStringLiteral("decideSentences"));
    m_sentences->setWordWrap(true);
    layout->addWidget(m_headline);
    layout->addWidget(m_sentences);
    connect(m_part, &QLineEdit::editingFinished, this, [this] {
        if (m_part->isModified())
            m_presenter.setPart(m_part->text());
        m_part->setModified(false);
    });
    connect(m_templates, &QComboBox::activated, this, [this](int index) {
        if (index > 0)
            m_presenter.useTemplate(static_cast<std::size_t>(index - 1));
        m_templates->setCurrentIndex(0);
    });
    connect(m_scope, &QComboBox::activated, this,
            [this](int index) { m_presenter.setOfAllStudies(index == 1); });
    return box;
}

QWidget *DecideView::createNeeds()
{
    auto *page = new QWidget;
    QVBoxLayout *layout = scrollingPage(page);
    layout->setContentsMargins(0, 0, 6, 0);
    auto *row = new QHBoxLayout;
    row->addWidget(heading(tr("What the part has to do")), 1);
    m_add = comboBox("decideAdd", tr("Add a need"));
    m_add->addItem(tr("add a need…"));
    for (const NeedKind kind : offeredNeeds())
        m_add->addItem(needWords(kind));
    m_add->setMinimumContentsLength(9);
    row->addWidget(m_add);
    layout->addLayout(row);
    m_needs = new QGridLayout;
    m_needs->setHorizontalSpacing(5);
    m_needs->setColumnStretch(0, 1);
    layout->addLayout(m_needs);
    m_addCandidate = lineEdit("decideAddCandidate", tr("A candidate without results"),
                              tr("also: a material, or a bought part and its price (bracket, 4.20)"));
    layout->addWidget(m_addCandidate);
    m_added = new QVBoxLayout;
    m_added->setSpacing(4);
    layout->addLayout(m_added);
    layout->addStretch(1);
    connect(m_addCandidate, &QLineEdit::returnPressed, this, [this] {
        if (m_presenter.addCandidate(m_addCandidate->text()))
            m_addCandidate->clear();
    });
    connect(m_add, &QComboBox::activated, this, [this](int index) {
        if (index > 0)
            m_presenter.addNeed(offeredNeeds()[static_cast<std::size_t>(index - 1)]);
        m_add->setCurrentIndex(0);
    });
    return page;
}

QWidget *DecideView::createReasons()
{
    auto *page = new QWidget;
    QVBoxLayout *layout = scrollingPage(page);
    layout->setContentsMargins(0, 0, 6, 0);
    m_chosen = heading({});
    m_chosen->setObjectName(QStringLiteral("decideChosen"));
    m_reasons = new QLabel;
    m_reasons->setObjectName(QStringLiteral("decideReasons"));
    m_reasons->setWordWrap(true);
    m_reasons->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(m_chosen);
    layout->addWidget(m_reasons);
    layout->addWidget(heading(tr("What to test next")));
    m_settle = new QVBoxLayout;
    m_settle->setSpacing(4);
    layout->addLayout(m_settle);
    layout->addStretch(1);
    return page;
}

void DecideView::addNeedRow(int row, std::size_t place)
{
    const Need &need = m_presenter.needs().needs[place];
    const QString number = QString::number(place);
    auto *name = lineEdit("", tr("Need %1").arg(place + 1));
    name->setObjectName(QStringLiteral("needName") + number);
    name->setMinimumWidth(kNeedNameWidth);
    name->setText(QString::fromStdString(need.name));
    name->setCursorPosition(0);
    connect(name, &QLineEdit::editingFinished, this, [this, name, place] {
        if (name->isModified())
            m_presenter.setName(place, name->text());
    });
    m_needs->addWidget(name, row, 0);
    // Field by field: what it is called, what stands in it, and who takes what is typed.
    using Setter = std::function<bool(const QString &)>;
    const auto field = [&](const char *id, const QString &label, const QString &text, int column,
                           bool isThere, Setter set) {
        auto *edit = lineEdit("", tr("%1 of need %2").arg(label).arg(place + 1), label);
        edit->setObjectName(QLatin1String(id) + number);
        edit->setToolTip(label);
        edit->setMinimumWidth(kNumberWidth);
        edit->setMaximumWidth(kWidestNumber);
        edit->setText(text);
        edit->setCursorPosition(0);
        edit->setVisible(isThere);
        onTyped(edit, std::move(set), [edit, text] { edit->setText(text); });
        m_needs->addWidget(edit, row, column);
    };
    const QString limit = m_presenter.limitText(place);
    const bool isLoad =
        need.kind == NeedKind::Strength || need.kind == NeedKind::Layers || need.kind == NeedKind::Load;
    field("needLimit", tr("Limit"), limit, 1, !limit.isEmpty(),
          [this, place](const QString &text) { return m_presenter.setLimit(place, text); });
    field("needFactor", tr("Safety factor"), QString::number(need.safetyFactor), 2, isLoad,
          [this, place](const QString &text) { return m_presenter.setFactor(place, text); });
    const bool isCreep = need.kind == NeedKind::Creep;
    field("needLoad", tr("Load"), m_presenter.loadText(place), 2, need.kind == NeedKind::Heat || isCreep,
          [this, place](const QString &text) { return m_presenter.setLoad(place, text); });
    field("needHours", tr("Time under load"), QStringLiteral("%1 h").arg(need.after_h), 3, isCreep,
          [this, place](const QString &text) { return m_presenter.setHours(place, text); });
    auto *must = comboBox("", tr("Must or wish, need %1").arg(place + 1));
    must->setObjectName(QStringLiteral("needMust") + number);
    must->addItems({tr("must"), tr("wish")});
    must->setCurrentIndex(need.isMust ? 0 : 1);
    must->setMinimumContentsLength(4);
    must->setMinimumWidth(kMustWidth);
    connect(must, &QComboBox::activated, this,
            [this, place](int index) { m_presenter.setMust(place, index == 0); });
    m_needs->addWidget(must, row, 4);
    field("needWeight", tr("Weight"), QString::number(need.weight), isCreep ? 5 : 3, !need.isMust,
          [this, place](const QString &text) { return m_presenter.setWeight(place, text); });
    auto *remove = button("", QStringLiteral("✕"));
    remove->setObjectName(QStringLiteral("needRemove") + number);
    remove->setProperty("slim", true);
    remove->setToolTip(tr("Remove this need"));
    remove->setAccessibleName(tr("Remove need %1").arg(place + 1));
    connect(remove, &QPushButton::clicked, this, [this, place] { m_presenter.removeNeed(place); });
    m_needs->addWidget(remove, row, 6);
}

void DecideView::buildNeeds()
{
    // The rows are made anew; who types along them keeps the keyboard where it is, or was on its way to.
    const QWidget *focus = QApplication::focusWidget();
    const QString focused = focus != nullptr && isAncestorOf(focus) ? focus->objectName() : QString();
    clearLayout(m_needs);
    const std::vector<Need> &needs = m_presenter.needs().needs;
    for (std::size_t place = 0; place < needs.size(); ++place)
        addNeedRow(static_cast<int>(place), place);
    showText(m_part, QString::fromStdString(m_presenter.needs().part));
    clearLayout(m_added);
    for (const QString &name : m_presenter.addedCandidates()) {
        auto *line = new QWidget;
        auto *row = new QHBoxLayout(line);
        row->setContentsMargins(0, 0, 0, 0);
        auto *remove = button("", QStringLiteral("✕"));
        remove->setProperty("slim", true);
        remove->setAccessibleName(tr("Remove the candidate %1").arg(name));
        connect(remove, &QPushButton::clicked, this, [this, name] { m_presenter.removeCandidate(name); });
        row->addWidget(new QLabel(name), 1);
        row->addWidget(remove);
        m_added->addWidget(line);
    }
    refresh();
    auto *again = focused.startsWith(QLatin1String("need")) ? findChild<QWidget *>(focused) : nullptr;
    if (again != nullptr)
        again->setFocus(Qt::OtherFocusReason);
}

void DecideView::refresh()
{
    const Decision &decision = m_presenter.decision();
    const bool hasOrder = !decision.order.empty();
    m_headline->setText(m_presenter.headline());
    m_sentences->setText(m_presenter.sentences());
    m_sentences->setVisible(!m_sentences->text().isEmpty());
    m_tell->setEnabled(m_presenter.made().has_value());
    m_key->setVisible(hasOrder);
    m_chosen->setText(hasOrder ? QString::fromStdString(decision.order[m_presenter.chosen()].candidate.name)
                               : tr("Nobody to choose from yet"));
    m_reasons->setText(m_presenter.reasons().join(QLatin1Char('\n')));
    m_board->refresh();
    clearLayout(m_settle);
    const std::size_t shown = std::min(kMostSettlings, decision.settle.size());
    for (std::size_t i = 0; i < shown; ++i) {
        auto *line = new QWidget;
        auto *row = new QHBoxLayout(line);
        row->setContentsMargins(0, 0, 0, 0);
        auto *words = new QLabel(QString::fromStdString(decision.settle[i].why));
        words->setWordWrap(true);
        auto *plan = button("", tr("Plan it"));
        plan->setObjectName(QStringLiteral("settle%1").arg(i));
        plan->setProperty("slim", true);
        plan->setAccessibleName(tr("Plan it: %1").arg(words->text()));
        plan->setVisible(decision.settle[i].pieces > 0);
        connect(plan, &QPushButton::clicked, this, [this, i] { m_presenter.plan(i); });
        row->addWidget(words, 1);
        row->addWidget(plan, 0, Qt::AlignTop);
        m_settle->addWidget(line);
    }
    if (shown == 0)
        m_settle->addWidget(
            softLabel(hasOrder ? tr("Nothing: no gate hangs on what is not known.") : QString()));
    else if (decision.settle.size() > shown)
        m_settle->addWidget(
            softLabel(tr("and %n more", nullptr, static_cast<int>(decision.settle.size() - shown))));
}

void DecideView::showEvent(QShowEvent *event)
{
    QWidget::showEvent(event);
    m_presenter.refresh();
    if (!event->spontaneous())
        m_board->setFocus(Qt::OtherFocusReason);
}

} // namespace inchpeg::app
