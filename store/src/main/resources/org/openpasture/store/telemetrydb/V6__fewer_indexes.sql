-- Each commit writes every page that it touches: with an index more for the data of each device, a page more for each device that was heard. What they were for,
-- the newest data of each device at start, is found by frame_by_device.
DROP INDEX frame_data_by_device;
DROP INDEX message_by_device;
