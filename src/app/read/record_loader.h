// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "service/beside/task.h"

#include <QObject>

#include <memory>
#include <optional>

namespace inchpeg::app
{

/// The whole record of the selected piece, read in another thread while the Read lens is open. All other
/// pieces are drawn from their outlines, so that a thousand records need no room.
class RecordLoader : public QObject
{
    Q_OBJECT
public:
    explicit RecordLoader(ProjectSession &session, QObject *parent = nullptr);

    /// The selected piece's record under the present rules and markers; nothing while it is being read.
    [[nodiscard]] std::shared_ptr<const PieceRecord> record() const;

signals:
    void recordChanged();

private:
    using Loaded = std::shared_ptr<const Result<PieceRecord>>;
    void load();
    void take(const Result<Loaded> &result);

    ProjectSession &m_session;
    std::shared_ptr<const PieceRecord> m_record;
    PieceId m_piece;
    std::string m_inputs; ///< what m_record was read from
    std::optional<OrderedReading> m_loading;
    Task<Loaded> m_task;
};

} // namespace inchpeg::app
