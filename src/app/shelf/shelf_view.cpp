// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_view.h"

#include "app/parts/form_parts.h"
#include "app/theme/theme.h"

#include <QFileInfo>
#include <QListWidget>
#include <QPainter>
#include <QResizeEvent>
#include <QStyledItemDelegate>
#include <QTextLayout>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kIdRole = Qt::UserRole;
constexpr int kNoteRole = Qt::UserRole + 1;
constexpr double kPad = 8.0;
constexpr int kMostLines = 3;
constexpr int kTallestToday = 210;

/// A line of today's work. The usual height is reckoned for another width than the line is drawn in, which
/// leaves gaps where a text only just fits.
class WorkDelegate : public QStyledItemDelegate
{
public:
    explicit WorkDelegate(QListWidget *list) : QStyledItemDelegate(list), m_list(list) {}

    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem &option, const QModelIndex &index) const override
    {
        const int margin = 1 + m_list->style()->pixelMetric(QStyle::PM_FocusFrameHMargin, &option, m_list);
        const int room = m_list->viewport()->width() - 2 * (m_list->spacing() + margin);
        const QRect text = option.fontMetrics.boundingRect(QRect(0, 0, room, 1000), Qt::TextWordWrap,
                                                           index.data().toString());
        return {room, text.height()};
    }

private:
    QListWidget *m_list;
};

/// The lines of a question wrap anew where a scroll bar takes some of their width; the list keeps the heights
/// that it was told before.
class RelaysOut : public QObject
{
public:
    explicit RelaysOut(QListWidget *list) : QObject(list), m_list(list)
    {
        list->viewport()->installEventFilter(this);
    }
    bool eventFilter(QObject *, QEvent *event) override
    {
        if (event->type() != QEvent::Resize) // others come while the list is being taken down
            return false;
        const int width = static_cast<QResizeEvent *>(event)->size().width();
        if (width != m_width) {
            m_width = width;
            QMetaObject::invokeMethod(
                m_list, [list = m_list] { list->doItemsLayout(); }, Qt::QueuedConnection);
        }
        return false;
    }

private:
    QListWidget *m_list;
    int m_width = 0;
};

void dressWorkList(QListWidget *list)
{
    list->setFrameShape(QFrame::NoFrame);
    list->setWordWrap(true);
    list->setItemDelegate(new WorkDelegate(list));
    list->setSpacing(1);
    list->setResizeMode(QListView::Adjust);
    list->setStyleSheet(QStringLiteral("QListWidget { padding-left: 9px; background: transparent; }"));
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    list->viewport()->setAutoFillBackground(false);
}

/// A study on the shelf: its question over up to three lines, and how far it has come.
class StudyDelegate : public QStyledItemDelegate
{
public:
    using QStyledItemDelegate::QStyledItemDelegate;

    void paint(QPainter *painter, const QStyleOptionViewItem &option, const QModelIndex &index) const override
    {
        const Theme &theme = currentTheme();
        const bool chosen = (option.state & QStyle::State_Selected) != 0;
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        if (chosen)
            painter->fillRect(option.rect, theme.sheet);
        if (chosen)
            painter->fillRect(QRect(option.rect.left(), option.rect.top(), 4, option.rect.height()),
                              theme.accent);
        painter->setPen(QPen(theme.line, 1));
        painter->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
        const QRectF text = QRectF(option.rect).adjusted(kPad + 4, kPad, -kPad, -kPad);
        const QFont font = option.font;
        painter->setFont(font);
        painter->setPen(theme.ink);
        const QFontMetricsF metrics(font);
        const double noteHeight = QFontMetricsF(option.font).lineSpacing();
        const QRectF question = text.adjusted(0, 0, 0, -noteHeight);
        double y = question.top();
        QTextLayout layout(index.data().toString(), font);
        layout.beginLayout();
        for (int i = 0; i < kMostLines; ++i) {
            QTextLine line = layout.createLine();
            if (!line.isValid())
                break;
            line.setLineWidth(question.width());
            const bool last = i + 1 == kMostLines;
            const QString part =
                index.data().toString().mid(line.textStart(), last ? -1 : line.textLength()).trimmed();
            painter->drawText(QPointF(question.left(), y + metrics.ascent()),
                              metrics.elidedText(part, Qt::ElideRight, question.width()));
            y += metrics.lineSpacing();
        }
        layout.endLayout();
        painter->setFont(option.font);
        painter->setPen(theme.softInk);
        painter->drawText(QRectF(text.left(), y, text.width(), noteHeight), Qt::AlignLeft | Qt::AlignVCenter,
                          index.data(kNoteRole).toString());
        painter->restore();
    }

    QSize sizeHint(const QStyleOptionViewItem &option, const QModelIndex &index) const override
    {
        const auto *list = qobject_cast<const QListWidget *>(option.widget);
        const double width = (list != nullptr ? list->viewport()->width() : 180) - 2.0 * kPad - 4.0;
        const QFont font = option.font;
        const QFontMetricsF metrics(font);
        QTextLayout layout(index.data().toString(), font);
        int lines = 0;
        layout.beginLayout();
        while (lines < kMostLines) {
            QTextLine line = layout.createLine();
            if (!line.isValid())
                break;
            line.setLineWidth(width);
            ++lines;
        }
        layout.endLayout();
        return {static_cast<int>(width), static_cast<int>(metrics.lineSpacing() * (lines + 1) + 2.0 * kPad)};
    }
};

} // namespace

ShelfView::ShelfView(ProjectSession &session, PlanState &plan, DueWatch &due, QWidget *parent)
    : QWidget(parent), m_session(session), m_plan(plan), m_watch(due)
{
    setObjectName(QStringLiteral("shelf"));
    m_project = softLabel({});
    m_list = new QListWidget;
    m_list->setObjectName(QStringLiteral("studyList"));
    m_list->setAccessibleName(tr("Studies"));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_list->setItemDelegate(new StudyDelegate(m_list));
    m_list->setResizeMode(QListView::Adjust);
    new RelaysOut(m_list);
    m_list->viewport()->setAutoFillBackground(false);
    auto *add = button("newStudy", tr("New study"));
    connect(add, &QPushButton::clicked, this, &ShelfView::newStudyRequested);
    connect(m_list, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem *item) {
        if (item != nullptr)
            m_session.tell(m_session.selectStudy(StudyId{item->data(kIdRole).toLongLong()}));
    });
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 10, 0, 10);
    auto *top = new QVBoxLayout;
    top->setContentsMargins(12, 0, 8, 0);
    top->addWidget(heading(tr("Shelf")));
    top->addWidget(m_project);
    layout->addLayout(top);
    layout->addWidget(m_list, 1);
    m_dueHeading = heading(tr("Under load"));
    m_dueHeading->setContentsMargins(12, 0, 8, 0);
    m_due = new QListWidget;
    m_due->setObjectName(QStringLiteral("dueList"));
    m_due->setAccessibleName(tr("Readings that are due"));
    m_due->setToolTip(tr("Enter or a double click goes to the piece at the bench"));
    dressWorkList(m_due);
    layout->addWidget(m_dueHeading);
    layout->addWidget(m_due);
    connect(m_due, &QListWidget::itemActivated, this, [this](const QListWidgetItem *item) {
        emit dueChosen(StudyId{item->data(kIdRole).toLongLong()},
                       PieceId{item->data(kNoteRole).toLongLong()});
    });
    connect(&m_watch, &DueWatch::changed, this, &ShelfView::refreshDue);
    m_todayHeading = heading({});
    m_todayHeading->setContentsMargins(12, 0, 8, 0);
    m_today = new QListWidget;
    m_today->setObjectName(QStringLiteral("todayList"));
    m_today->setAccessibleName(tr("Due today"));
    dressWorkList(m_today);
    layout->addWidget(m_todayHeading);
    layout->addWidget(m_today);
    connect(m_today, &QListWidget::itemActivated, this, [this](const QListWidgetItem *item) {
        m_session.tell(m_session.selectStudy(StudyId{item->data(kIdRole).toLongLong()}));
    });
    auto *bottom = new QVBoxLayout;
    bottom->setContentsMargins(10, 0, 10, 0);
    bottom->addWidget(add);
    layout->addLayout(bottom);
    connect(&session, &ProjectSession::studiesChanged, this, &ShelfView::refresh);
    connect(&session, &ProjectSession::projectChanged, this, &ShelfView::refresh);
    connect(&session, &ProjectSession::studyChanged, this, &ShelfView::refresh);
    connect(&plan, &PlanState::changed, this, &ShelfView::refreshToday);
    refresh();
    refreshToday();
    refreshDue();
}

/// Of all studies; the countdown goes on, so items are changed rather than made anew.
void ShelfView::refreshDue()
{
    const std::vector<DueReading> &readings = m_watch.readings();
    while (m_due->count() > static_cast<int>(readings.size()))
        delete m_due->takeItem(m_due->count() - 1);
    while (m_due->count() < static_cast<int>(readings.size()))
        new QListWidgetItem(m_due);
    for (int i = 0; i < m_due->count(); ++i) {
        const DueReading &reading = readings[static_cast<std::size_t>(i)];
        const bool isDue = reading.state == DueState::Now || reading.state == DueState::Overdue;
        QListWidgetItem *item = m_due->item(i);
        item->setText((isDue ? QStringLiteral("▲ ") : QString()) + m_watch.text(reading));
        item->setData(kIdRole, QVariant::fromValue(qint64{reading.study.value}));
        item->setData(kNoteRole, QVariant::fromValue(qint64{reading.piece.value}));
    }
    const bool hasAny = m_due->count() > 0;
    m_dueHeading->setVisible(hasAny);
    m_due->setVisible(hasAny);
    m_due->setFixedHeight(std::min(kTallestToday, 8 + 40 * std::max(1, m_due->count())));
}

void ShelfView::refreshToday()
{
    const Moment now = m_plan.today();
    m_today->clear();
    for (const CalendarEntry &entry : workOf(m_plan.calendar(), now)) {
        const bool begins =
            std::chrono::floor<std::chrono::days>(entry.start) == std::chrono::floor<std::chrono::days>(now);
        auto *item = new QListWidgetItem(
            QString::fromStdString(clockText(begins ? entry.start : entry.end)) + QStringLiteral("  ") +
                (begins ? QString::fromStdString(entry.what)
                        : tr("done: %1").arg(QString::fromStdString(entry.what))),
            m_today);
        item->setData(kIdRole, QVariant::fromValue(qint64{entry.study.value}));
        item->setToolTip(item->text() + QLatin1Char('\n') + m_plan.questionOf(entry.study));
    }
    m_todayHeading->setText(tr("Today, %1").arg(QString::fromStdString(dayText(now))));
    const bool due = m_today->count() > 0;
    m_todayHeading->setVisible(due);
    m_today->setVisible(due);
    m_today->setFixedHeight(std::min(kTallestToday, 8 + 36 * std::max(1, m_today->count())));
}

void ShelfView::refresh()
{
    m_project->setText(m_session.hasProject() ? QFileInfo(m_session.projectPath()).completeBaseName()
                                              : tr("no project"));
    m_project->setToolTip(m_session.projectPath());
    const QSignalBlocker blocker(m_list);
    m_list->clear();
    for (const StudyHeader &study : m_session.studies()) {
        auto *item = new QListWidgetItem(QString::fromStdString(study.question), m_list);
        item->setData(kIdRole, QVariant::fromValue(qint64{study.id.value}));
        item->setData(kNoteRole, tr("%1 of %2 broken").arg(study.recorded).arg(study.pieces));
        item->setToolTip(QString::fromStdString(study.question));
        if (m_session.study() != nullptr && m_session.study()->id == study.id)
            m_list->setCurrentItem(item);
    }
}

} // namespace inchpeg::app
